import { FileButton } from '@mantine/core';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { api, data, type Schema } from '../../api/client';
import { Notice } from '../../components/Notice';
import { fileAsBase64 } from '../../lib/base64';
import { moment } from '../../lib/moments';
import { many, num } from '../../lib/numbers';
import { keyOf, useChanged } from '../../lib/queries';
import { useHere } from '../../lib/useClient';
import { AskedSheet } from './AskedSheet';
import { LEFT_OUT } from './leftOut';
import css from './people.module.css';

type Kind = Schema['SiteFile']['kind'];
const KINDS: readonly { kind: Kind; what: string; accept?: string }[] = [
  { kind: 'log', what: 'a web server’s log' },
  { kind: 'events', what: 'a sheet of orders or views', accept: '.csv,.tsv,.txt,.xlsx,.ods,.gz,.zip' },
];

/** Files that were put in for a site: what was taken of each, what was left out and why, and what is asked. */
export function SiteFiles({ site }: { site: Schema['Sites']['items'][number] }) {
  const { client, mayEdit } = useHere();
  const changed = useChanged();
  const path = { client: client.id, collector: site.id };
  const [open, setOpen] = useState<Schema['SiteFile']>();
  const [came, setCame] = useState<number>();
  const files = useQuery({
    queryKey: keyOf('site-files', client.id, site.id),
    queryFn: () => data(api.GET('/clients/{client}/sites/{collector}/files', { params: { path } })),
    refetchInterval: (query) => (query.state.data?.items.some((l) => l.state === 'waiting') ? 1000 : false),
  });
  const put = useMutation({
    mutationFn: async ({ file, kind }: { file: File; kind: Kind }) =>
      data(
        api.POST('/clients/{client}/sites/{collector}/files', {
          params: { path },
          body: { name: file.name, content: await fileAsBase64(file), kind },
        }),
      ),
    onSuccess: (file) => {
      changed('sites');
      setCame(file.id);
    },
  });
  // what was just put in, and asks something, is opened by itself
  const asks = files.data?.items.find((f) => f.id === came && f.state === 'asked');
  if (asks) {
    setCame(undefined);
    setOpen(asks);
  }
  const problem = files.error ?? put.error;
  return (
    <div className={css.logs}>
      {problem && <Notice>{problem.message}</Notice>}
      {(mayEdit ? KINDS : []).map(({ kind, what, accept }) => (
        <FileButton key={kind} accept={accept} onChange={(file) => file && put.mutate({ file, kind })}>
          {(props) => (
            <button type="button" className={css.putIn} {...props} aria-label={`put in ${what} for ${site.name}`}>
              put in {what} …
            </button>
          )}
        </FileButton>
      ))}
      {files.data && files.data.items.length > 0 && (
        <ul aria-label={`files of ${site.name}`}>
          {files.data.items.slice(0, 3).map((file) => (
            <li key={file.id}>
              <b>{file.name}</b> <span className="quiet">{moment(file.cameAt)}</span>:{' '}
              {file.state === 'asked' && mayEdit ? (
                <button type="button" className={css.putIn} onClick={() => setOpen(file)}>
                  say what its columns are …
                </button>
              ) : (
                said(file)
              )}
            </li>
          ))}
        </ul>
      )}
      {open && <AskedSheet site={site.id} file={open} onClose={() => setOpen(undefined)} />}
    </div>
  );
}

function said(log: Schema['SiteFile']): string {
  if (log.state === 'waiting') return 'it is being read …';
  if (log.state === 'asked') return 'it waits for somebody to say what its columns are';
  if (log.state === 'failed') return log.problem ?? '';
  const left = Object.entries(log.leftOut).map(([why, n]) => `${num(n)} ${LEFT_OUT[why] ?? why}`);
  const isLog = log.kind === 'log';
  const taken = `${isLog ? many(log.taken, 'view') : num(log.taken)} of ${many(log.lines, isLog ? 'line' : 'row')}`;
  return left.length > 0 ? `${taken}; left out: ${left.join(', ')}` : taken;
}
