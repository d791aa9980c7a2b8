import { Button } from '@mantine/core';
import { useInfiniteQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { api, data, type Schema } from '../../api/client';
import { Difference } from '../../components/Difference';
import { Place } from '../../components/Place';
import { Notice } from '../../components/Notice';
import { useHere } from '../../lib/useClient';
import css from './ledger.module.css';
import { keyOf } from '../../lib/queries';
import { moment } from '../../lib/moments';

type Entry = Schema['Ledger']['items'][number];

/** Every text that was written, newest first; what one change wrote stands together under it. */
export function Entries({ account, from, to }: { account: string | null; from: string; to: string }) {
  const { client, to: page } = useHere();
  const entries = useInfiniteQuery({
    queryKey: keyOf('ledger', client.id, account, from, to),
    queryFn: ({ pageParam }) =>
      data(
        api.GET('/clients/{client}/ledger', {
          params: {
            path: { client: client.id },
            query: { from, to, ...(account ? { account } : {}), ...(pageParam ? { before: String(pageParam) } : {}) },
          },
        }),
      ),
    initialPageParam: 0,
    getNextPageParam: (last) => last.next ?? undefined,
  });
  if (entries.error) return <Notice>{entries.error.message}</Notice>;
  const items = entries.data?.pages.flatMap((p) => p.items) ?? [];
  if (entries.isSuccess && items.length === 0) return <p className="quiet">Nothing was written in these days.</p>;
  return (
    <div className={css.list} tabIndex={0} role="region" aria-label="every write, newest first">
      {byChange(items).map((group) => (
        <section key={`${group[0]!.change}-${group[0]!.id}`} aria-label={group[0]!.title}>
          <header className={css.group}>
            <span className="num">{moment(group[0]!.at)}</span>
            <b>{group[0]!.who}</b>
            <Link to={page(`changes/${group[0]!.change}`)}>{group[0]!.title}</Link>
            <span className="quiet">{group[0]!.account}</span>
            {group[0]!.reason && <span className={css.reason}>{group[0]!.reason}</span>}
          </header>
          {group.map((e) => (
            <div key={e.id} className={css.entry}>
              <span title={e.name ?? 'it is gone from the platform'}>
                {e.name ?? <i>gone</i>} <span className="quiet">{e.level}</span>
              </span>
              <span>
                <Place kind={e.kind} name={e.custom} />
                {e.found && <em>found when reading back</em>}
              </span>
              <span className="mono">
                <Difference before={e.before} after={e.after} />
              </span>
            </div>
          ))}
        </section>
      ))}
      {entries.hasNextPage && (
        <Button
          size="xs"
          variant="subtle"
          loading={entries.isFetchingNextPage}
          onClick={() => void entries.fetchNextPage()}
        >
          Older ones
        </Button>
      )}
    </div>
  );
}

function byChange(items: readonly Entry[]): Entry[][] {
  const groups: Entry[][] = [];
  for (const e of items) {
    const last = groups.at(-1);
    if (last?.[0]!.change === e.change) last.push(e);
    else groups.push([e]);
  }
  return groups;
}
