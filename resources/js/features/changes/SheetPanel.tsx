import { Button, FileButton, Select } from '@mantine/core';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { api, data, type Schema } from '../../api/client';
import { Notice } from '../../components/Notice';
import { useAccounts } from '../../lib/useAccounts';
import { useHere } from '../../lib/useClient';
import { num } from '../../lib/numbers';
import { fileAsBase64 } from '../../lib/base64';
import { MapsDialog } from '../maps/MapsDialog';
import { useMaps } from '../maps/useMaps';
import css from './changes.module.css';
import { useChanged } from '../../lib/queries';

/** A result sheet of the platform, brought back. */
function useResult(change: Schema['Change'], map?: number) {
  const { client } = useHere();
  const changed = useChanged();
  return useMutation({
    mutationFn: async (file: File) =>
      data(
        api.POST('/clients/{client}/changes/{change}/sheet', {
          params: { path: { client: client.id, change: change.id } },
          body: { map, name: file.name, content: await fileAsBase64(file) },
        }),
      ),
    onSettled: () => changed('change'),
  });
}

/** A change of an account that came as sheets: it goes out in their shape. */
function AsItCame({ change, sent }: { change: Schema['Change']; sent: number }) {
  const { client } = useHere();
  const changed = useChanged();
  const path = { client: client.id, change: change.id };
  const read = useResult(change);
  const taken = useMutation({
    mutationFn: () => data(api.POST('/clients/{client}/changes/{change}/sheet/taken', { params: { path } })),
    onSettled: () => changed('change'),
  });
  const told = read.data ?? taken.data;
  return (
    <section className={css.sheet} aria-label="the sheet">
      <p>
        {change.account.name} came as sheets, so this goes out in their shape: their headings, only what changes.{' '}
        <b>{num(sent)}</b> {sent === 1 ? 'text waits' : 'texts wait'} to be uploaded to the platform.
      </p>
      <div className={css.sheetActs}>
        <Button size="xs" component="a" href={`/api/v1/clients/${client.id}/changes/${change.id}/sheet`} download>
          Take the sheet to upload
        </Button>
        <Button size="xs" variant="default" loading={taken.isPending} onClick={() => taken.mutate()}>
          The platform has taken all of it
        </Button>
        <FileButton accept=".csv,.tsv,.txt,.xlsx,.ods" onChange={(file) => file && read.mutate(file)}>
          {(props) => (
            <Button {...props} size="xs" variant="default" loading={read.isPending}>
              Bring its result in
            </Button>
          )}
        </FileButton>
      </div>
      {(read.error ?? taken.error) && <Notice>{(read.error ?? taken.error)!.message}</Notice>}
      {told && <Told told={told} />}
    </section>
  );
}

function Told({ told }: { told: Schema['SheetRead'] }) {
  return (
    <Notice calm>
      {num(told.taken)} taken, {num(told.refused)} refused. {told.problems.join(' ')}
    </Notice>
  );
}

const PLAIN = 'plain';

/** A change that goes out as a sheet: take it, bring it to the platform, bring the result back. */
export function SheetPanel({ change }: { change: Schema['Change'] }) {
  const { client } = useHere();
  const [chosen, setChosen] = useState<string | null>(null);
  const [shown, setShown] = useState(false);
  const accounts = useAccounts();
  const account = accounts.data?.items.find((a) => a.id === change.account.id);
  const maps = useMaps(account?.dialect);
  const map = chosen === PLAIN ? undefined : (maps.find((m) => String(m.id) === chosen) ?? maps[0]);
  const read = useResult(change, map?.id);
  const sent = change.progress.sent ?? 0;
  if (!account) return null;
  if (account.readsBy === 'sheet') return <AsItCame change={change} sent={sent} />;
  const query = map ? `map=${map.id}&` : '';
  return (
    <section className={css.sheet} aria-label="the sheet">
      <p>
        {change.account.name} takes texts in a sheet only. Take it there, then bring its result back here:{' '}
        <b>{num(sent)}</b> {sent === 1 ? 'text waits' : 'texts wait'} for its answer.
      </p>
      <div className={css.sheetActs}>
        <Select
          size="xs"
          w={210}
          aria-label="how the sheet names its columns"
          allowDeselect={false}
          data={[
            ...maps.map((m) => ({ value: String(m.id), label: m.title })),
            { value: PLAIN, label: 'Plain: level, number, texts' },
          ]}
          value={map ? String(map.id) : PLAIN}
          onChange={setChosen}
        />
        <Button size="xs" variant="subtle" onClick={() => setShown(true)}>
          Other columns …
        </Button>
        {(['csv', 'tsv', 'xlsx', 'ods'] as const).map((as) => (
          <Button
            key={as}
            size="xs"
            variant="default"
            component="a"
            href={`/api/v1/clients/${client.id}/changes/${change.id}/sheet?${query}as=${as}`}
            download
          >
            Take it as {as.toUpperCase()}
          </Button>
        ))}
        <FileButton accept=".csv,.tsv,.txt,.xlsx,.ods" onChange={(file) => file && read.mutate(file)}>
          {(props) => (
            <Button {...props} size="xs" loading={read.isPending}>
              Bring the result in
            </Button>
          )}
        </FileButton>
      </div>
      {read.error && <Notice>{read.error.message}</Notice>}
      {read.data && <Told told={read.data} />}
      {shown && <MapsDialog dialect={account.dialect} onClose={() => setShown(false)} />}
    </section>
  );
}
