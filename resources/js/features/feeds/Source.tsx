import { Button, CopyButton, FileButton, NativeSelect, TextInput } from '@mantine/core';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { api, data, type Schema } from '../../api/client';
import { Notice } from '../../components/Notice';
import { moment } from '../../lib/moments';
import { many } from '../../lib/numbers';
import { inParts, nameOfFile } from '../../lib/parts';
import { useChanged } from '../../lib/queries';
import { useHere } from '../../lib/useClient';
import css from './feeds.module.css';

const OFTEN = [
  { value: '', label: 'by hand, or on a call' },
  { value: '15', label: 'every 15 minutes' },
  { value: '60', label: 'every hour' },
  { value: '360', label: 'every 6 hours' },
  { value: '1440', label: 'every day' },
];

/** Where a list comes from and where it is handed on; a list that is held, and what can be done about it. */
export function Source({ feed }: { feed: Schema['Feed'] }) {
  const { client, mayEdit, to } = useHere();
  const navigate = useNavigate();
  const changed = useChanged();
  const path = { client: client.id, feed: feed.id };
  const done = { onSuccess: () => changed('feeds') };
  const change = useMutation({
    mutationFn: (body: Schema['FeedChange']) =>
      data(api.PUT('/clients/{client}/feeds/{feed}', { params: { path }, body })),
    ...done,
  });
  const fetchNow = useMutation({
    mutationFn: () => data(api.POST('/clients/{client}/feeds/{feed}/fetch', { params: { path } })),
    ...done,
  });
  const [sent, setSent] = useState(0);
  const came = feed.kept?.cameAt ?? '';
  const put = useMutation({
    mutationFn: async (file: File) => {
      if (file.size === 0) throw new Error(`${file.name} is empty.`);
      const name = nameOfFile();
      const part = async (from: number, content: string) => {
        const body = { file: name, bytes: file.size, from, content };
        const { received } = await data(api.PUT('/clients/{client}/feeds/{feed}/file', { params: { path }, body }));
        return received;
      };
      await inParts(file, 0, part, (bytes) => setSent(bytes / file.size));
      return came;
    },
    onSuccess: () => changed('feeds'),
    onSettled: () => setSent(0),
  });
  const accept = useMutation({
    mutationFn: (copy: number) =>
      data(
        api.POST('/clients/{client}/feeds/{feed}/copies/{copy}/acceptance', { params: { path: { ...path, copy } } }),
      ),
    ...done,
  });
  const letGo = useMutation({
    mutationFn: async () => {
      await api.DELETE('/clients/{client}/feeds/{feed}', { params: { path } });
    },
    onSuccess: () => {
      changed('feeds');
      void navigate(to('feeds'));
    },
  });
  const [isSure, setSure] = useState(false);
  const [address, setAddress] = useState(feed.address ?? '');
  const problem = change.error ?? fetchNow.error ?? put.error ?? accept.error ?? letGo.error;
  const often = String(feed.everyMinutes ?? '');
  return (
    <header className={css.source}>
      <div className={css.from}>
        <h1>{feed.name}</h1>
        <TextInput
          size="xs"
          aria-label="the list’s address"
          placeholder="https:// where the list is"
          value={address}
          disabled={!mayEdit}
          classNames={{ input: 'mono' }}
          onChange={(e) => setAddress(e.target.value)}
          onBlur={() => address !== (feed.address ?? '') && change.mutate({ address: address === '' ? null : address })}
        />
        <NativeSelect
          size="xs"
          aria-label="how often it is fetched"
          disabled={!mayEdit || feed.address === null}
          data={
            OFTEN.some((o) => o.value === often) ? OFTEN : [...OFTEN, { value: often, label: `every ${often} minutes` }]
          }
          value={often}
          onChange={(e) => change.mutate({ everyMinutes: e.target.value === '' ? null : Number(e.target.value) })}
        />
        {mayEdit && (
          <>
            <Button
              size="compact-xs"
              variant="default"
              disabled={feed.address === null}
              loading={fetchNow.isPending}
              onClick={() => fetchNow.mutate()}
            >
              Fetch it now
            </Button>
            <FileButton onChange={(file) => file && put.mutate(file)}>
              {(props) => (
                <button type="button" className={css.link} disabled={put.isPending} {...props}>
                  {put.isPending ? `${Math.round(100 * sent)} % is sent …` : 'put in a file …'}
                </button>
              )}
            </FileButton>
          </>
        )}
      </div>
      <div className={css.goes}>
        <span>
          {feed.kept ? (
            <>
              {many(feed.kept.items, 'item')}, came {moment(feed.kept.cameAt)}
            </>
          ) : feed.problem ? (
            'nothing has come yet'
          ) : feed.address ? (
            'it is being fetched …'
          ) : (
            'put in a file, or give its address'
          )}
          {put.data === came && !feed.problem && !feed.held && (
            <span className="quiet"> · a list that was put in is being read …</span>
          )}
          {feed.fetchedAt && <span className="quiet"> · asked for {moment(feed.fetchedAt)}</span>}
        </span>
        <i aria-hidden>→</i>
        {feed.out ? (
          <span>
            handed on at{' '}
            <CopyButton value={feed.out.address}>
              {({ copied, copy }) => (
                <button type="button" className={`${css.link} ${css.address}`} onClick={copy} title={feed.out!.address}>
                  {copied ? 'copied' : feed.out!.address.replace(/^https?:\/\//, '')}
                </button>
              )}
            </CopyButton>
          </span>
        ) : (
          <span className="quiet">handed on as soon as rules are applied</span>
        )}
        {mayEdit && (
          <button type="button" className={css.link} onClick={() => setSure(true)}>
            let go of it …
          </button>
        )}
        {mayEdit && feed.address && (
          <CopyButton value={feed.call}>
            {({ copied, copy }) => (
              <button type="button" className={css.link} onClick={copy} title={`POST ${feed.call}`}>
                {copied ? 'copied' : 'an address that has it fetched'}
              </button>
            )}
          </CopyButton>
        )}
      </div>
      {mayEdit && isSure && (
        <Notice
          action={
            <>
              <Button size="compact-xs" color="red" loading={letGo.isPending} onClick={() => letGo.mutate()}>
                Hand it on no longer
              </Button>
              <Button size="compact-xs" variant="subtle" onClick={() => setSure(false)}>
                Leave it
              </Button>
            </>
          }
        >
          Whoever reads this list finds nothing at its address then.
        </Notice>
      )}
      {problem && <Notice>{problem.message}</Notice>}
      {feed.problem && !feed.held && (
        <Notice>
          {feed.problem} {feed.kept ? 'The last good list stays.' : ''}
        </Notice>
      )}
      {feed.held && (
        <Notice
          action={
            mayEdit && (
              <Button size="compact-xs" loading={accept.isPending} onClick={() => accept.mutate(feed.held!.id)}>
                It is right as it is: take it
              </Button>
            )
          }
        >
          A list that came {moment(feed.held.cameAt)} is held. {feed.held.why} The last good one is handed on meanwhile.
        </Notice>
      )}
    </header>
  );
}
