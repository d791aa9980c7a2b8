import { Button } from '@mantine/core';
import { useInfiniteQuery } from '@tanstack/react-query';
import { api, data, type Schema } from '../../api/client';
import { useHere } from '../../lib/useClient';
import css from './changes.module.css';

type Write = Schema['Writes']['items'][number];

/** Every write, in the order in which it is applied. */
export function Writes({ id, running }: { id: number; running: boolean }) {
  const { client } = useHere();
  const writes = useInfiniteQuery({
    queryKey: ['writes', id],
    queryFn: ({ pageParam }) => data(api.GET('/clients/{client}/changes/{change}/writes', { params: { path: { client: client.id, change: id }, query: { offset: String(pageParam) } } })),
    initialPageParam: 0,
    getNextPageParam: (last, all) => {
      const have = all.reduce((n, p) => n + p.items.length, 0);
      return have < last.total ? have : undefined;
    },
    refetchInterval: running ? 1000 : false,
  });
  const items = writes.data?.pages.flatMap((p) => p.items) ?? [];
  if (items.length === 0) return null;
  return (
    <section className={css.section}>
      <h2>The {writes.data?.pages[0]?.total} writes</h2>
      <table className={css.writes}>
        <thead>
          <tr>
            <th scope="col">where</th>
            <th scope="col">what</th>
            <th scope="col">now → after</th>
            <th scope="col">state</th>
          </tr>
        </thead>
        <tbody>
          {items.map((w) => (
            <tr key={w.id} data-state={w.state}>
              <td>
                {w.name} <span className="quiet">{w.level}</span>
              </td>
              <td>{w.kind === 'custom' ? <span className="mono">{w.custom}</span> : w.kind}</td>
              <td className="mono">
                <Text text={w.before} />
                <br />
                <Text text={w.after} />
              </td>
              <td>
                {STATE[w.state]}
                {w.problem && <div className={css.bad}>{w.problem}</div>}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {writes.hasNextPage && (
        <Button size="xs" variant="subtle" loading={writes.isFetchingNextPage} onClick={() => void writes.fetchNextPage()}>
          More
        </Button>
      )}
    </section>
  );
}

const STATE: Record<Write['state'], string> = { waiting: 'waiting', sent: 'sent', written: 'written', verified: 'read back', differs: 'differs', failed: 'failed' };

function Text({ text }: { text: string | null }) {
  return text === null ? <span className={css.none}>nothing</span> : <span>{text}</span>;
}
