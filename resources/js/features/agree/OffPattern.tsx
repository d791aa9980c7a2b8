import { Anchor, Button, Select } from '@mantine/core';
import { useMutation } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import { api, data, type Schema } from '../../api/client';
import { Notice } from '../../components/Notice';
import { num } from '../../lib/numbers';
import { useChanged } from '../../lib/queries';
import { useAccounts } from '../../lib/useAccounts';
import { useHere } from '../../lib/useClient';
import type { Names } from './names';
import css from './agree.module.css';

/** The names of an account that are off their pattern, as the patterns stand here. */
export function OffPattern({ document, isEdited }: { document: Names; isEdited: boolean }) {
  const { client, mayEdit, to } = useHere();
  const changed = useChanged();
  const navigate = useNavigate();
  const [own, setOwn] = useState<Readonly<Record<number, string>>>({});
  const accounts = useAccounts();
  const asked = useSearchParams()[0].get('account');
  const [chosen, setChosen] = useState(asked);
  const items = accounts.data?.items ?? [];
  const account = chosen ?? (items[0] ? String(items[0].id) : null);
  const read = useMutation({
    mutationFn: () =>
      data(
        api.POST('/clients/{client}/agreements/names/reading', {
          params: { path: { client: client.id } },
          body: { document: document as unknown as Record<string, unknown>, account: Number(account) },
        }),
      ),
  });
  const { mutate } = read;
  useEffect(() => {
    if (asked !== null) mutate();
  }, [asked, mutate]);
  const rename = useMutation({
    mutationFn: () =>
      data(
        api.POST('/clients/{client}/accounts/{account}/names/change', {
          params: { path: { client: client.id, account: Number(account) } },
          body: {
            own: Object.entries(own).map(([node, name]) => ({ node: Number(node), name: name.trim() || null })),
          },
        }),
      ),
    onSuccess: async ({ id }) => {
      await changed('change');
      await navigate(to(`changes/${id}`));
    },
  });
  const told = read.data;
  const canRename = mayEdit && !isEdited;
  return (
    <section aria-label="names off their pattern" className={css.off}>
      <div className={css.add}>
        <h2>Names as they are</h2>
        <Select
          size="xs"
          aria-label="of which account"
          allowDeselect={false}
          data={items.map((a) => ({ value: String(a.id), label: a.name }))}
          value={account}
          onChange={(to) => {
            setChosen(to);
            setOwn({});
            read.reset();
          }}
        />
        <Button
          size="xs"
          variant="default"
          disabled={account === null}
          loading={read.isPending}
          onClick={() => read.mutate()}
        >
          Read them
        </Button>
        {told && (
          <span role="status">
            {num(told.fits)} follow their pattern, <b>{num(told.off)} are off</b>, {num(told.free)} are free.
          </span>
        )}
      </div>
      {told && told.off > 0 && !isEdited && (
        <div className={css.add}>
          {mayEdit && (
            <Button size="xs" loading={rename.isPending} onClick={() => rename.mutate()}>
              Draft a change that renames them
            </Button>
          )}
          <span>or take all {num(told.off)} away, each with the name that is meant:</span>
          {['xlsx', 'csv', 'ods'].map((as) => (
            <Anchor key={as} href={`/api/v1/clients/${client.id}/accounts/${account}/names/file?as=${as}`} download>
              {as.toUpperCase()}
            </Anchor>
          ))}
        </div>
      )}
      {told && told.off > 0 && isEdited && <p className="quiet">Save the patterns to rename by them.</p>}
      {[read.error, rename.error].map((e) => e && <Notice key={e.message}>{e.message}</Notice>)}
      {told && told.items.length > 0 && (
        <table className={css.table}>
          <thead>
            <tr>
              <th scope="col">name</th>
              <th scope="col">what is wrong</th>
              <th scope="col">meant</th>
            </tr>
          </thead>
          <tbody>
            {told.items.map((one) => (
              <tr key={one.node}>
                <td>
                  <Marked one={one} /> <span className="quiet">{one.level}</span>
                </td>
                <td>{one.why}</td>
                <td className="mono">
                  {canRename ? (
                    <input
                      className={css.input}
                      aria-label={`what ${one.name} is to be called`}
                      placeholder="it stays"
                      value={own[one.node] ?? one.proposed ?? ''}
                      onChange={(e) => setOwn({ ...own, [one.node]: e.currentTarget.value })}
                    />
                  ) : (
                    one.proposed
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}

/** A name, what is wrong in it underlined. */
function Marked({ one }: { one: Schema['ReadNames']['items'][number] }) {
  const letters = [...one.name];
  const at = one.at ?? letters.length;
  return (
    <>
      {letters.slice(0, at).join('')}
      <span className={css.wrongPart}>{letters.slice(at, at + one.length).join('')}</span>
      {letters.slice(at + one.length).join('')}
    </>
  );
}
