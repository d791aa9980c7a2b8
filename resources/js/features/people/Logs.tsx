import { FileButton } from '@mantine/core';
import { useMutation, useQuery } from '@tanstack/react-query';
import { api, data, type Schema } from '../../api/client';
import { Notice } from '../../components/Notice';
import { fileAsBase64 } from '../../lib/base64';
import { moment } from '../../lib/moments';
import { many, num } from '../../lib/numbers';
import { keyOf, useChanged } from '../../lib/queries';
import { useHere } from '../../lib/useClient';
import css from './people.module.css';

const LEFT_OUT: Record<string, string> = {
  'no-page': 'no pages',
  program: 'by programs that say what they are',
  unreadable: 'not readable',
  'foreign-address': 'of other hosts',
  ahead: 'of days to come',
  'too-old': 'older than what is kept',
  'too-late': 'of too long ago to count',
  'no-order': 'without an order number',
  'no-time': 'without a time that can be read',
  'no-value': 'whose value is no number',
  'no-currency': 'whose currency is none',
  'huge-value': 'with too large a value',
};

type Kind = Schema['LogFile']['kind'];
const KINDS: readonly { kind: Kind; what: string; accept?: string }[] = [
  { kind: 'log', what: 'a web server’s log' },
  { kind: 'conversions', what: 'a sheet of orders', accept: '.csv,.tsv,.txt,.xlsx,.ods,.gz,.zip' },
];

/** Files that were put in for a site, logs and orders: what was taken of each, and what was left out and why. */
export function Logs({ site }: { site: Schema['Sites']['items'][number] }) {
  const { client } = useHere();
  const changed = useChanged();
  const path = { client: client.id, collector: site.id };
  const logs = useQuery({
    queryKey: keyOf('site-logs', client.id, site.id),
    queryFn: () => data(api.GET('/clients/{client}/sites/{collector}/logs', { params: { path } })),
    refetchInterval: (query) => (query.state.data?.items.some((l) => l.state === 'waiting') ? 1000 : false),
  });
  const put = useMutation({
    mutationFn: async ({ file, kind }: { file: File; kind: Kind }) =>
      data(
        api.POST('/clients/{client}/sites/{collector}/logs', {
          params: { path },
          body: { name: file.name, content: await fileAsBase64(file), kind },
        }),
      ),
    onSuccess: () => changed('sites'),
  });
  const problem = logs.error ?? put.error;
  return (
    <div className={css.logs}>
      {problem && <Notice>{problem.message}</Notice>}
      {KINDS.map(({ kind, what, accept }) => (
        <FileButton key={kind} accept={accept} onChange={(file) => file && put.mutate({ file, kind })}>
          {(props) => (
            <button type="button" className={css.putIn} {...props} aria-label={`put in ${what} for ${site.name}`}>
              put in {what} …
            </button>
          )}
        </FileButton>
      ))}
      {logs.data && logs.data.items.length > 0 && (
        <ul aria-label={`files of ${site.name}`}>
          {logs.data.items.slice(0, 3).map((log) => (
            <li key={log.id}>
              <b>{log.name}</b> <span className="quiet">{moment(log.cameAt)}</span>: {said(log)}
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}

function said(log: Schema['LogFile']): string {
  if (log.state === 'waiting') return 'it is being read …';
  if (log.state === 'failed') return log.problem ?? '';
  const left = Object.entries(log.leftOut).map(([why, n]) => `${num(n)} ${LEFT_OUT[why] ?? why}`);
  const isLog = log.kind === 'log';
  const taken = `${many(log.taken, isLog ? 'view' : 'order')} of ${many(log.lines, isLog ? 'line' : 'row')}`;
  return left.length > 0 ? `${taken}; left out: ${left.join(', ')}` : taken;
}
