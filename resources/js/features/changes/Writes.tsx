import { Button } from '@mantine/core';
import { useInfiniteQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { api, data, type Schema } from '../../api/client';
import { Difference } from '../../components/Difference';
import { Place } from '../../components/Place';
import { useHere } from '../../lib/useClient';
import css from './changes.module.css';
import { num } from '../../lib/numbers';
import { keyOf } from '../../lib/queries';

type Write = Schema['Writes']['items'][number];

const MADE: readonly Write['state'][] = ['written', 'verified', 'differs'];

/** Every write, in the order in which it is applied. Some of those that were made can be chosen and taken back. */
export function Writes({
  id,
  running,
  onTakeBack,
}: {
  id: number;
  running: boolean;
  onTakeBack?: (writes: number[]) => void;
}) {
  const { client } = useHere();
  const [chosen, setChosen] = useState<ReadonlySet<number>>(new Set());
  const [failed, setFailed] = useState(false);
  const writes = useInfiniteQuery({
    queryKey: keyOf('writes', id, failed),
    queryFn: ({ pageParam }) =>
      data(
        api.GET('/clients/{client}/changes/{change}/writes', {
          params: {
            path: { client: client.id, change: id },
            query: { offset: String(pageParam), ...(failed ? { failed: '1' } : {}) },
          },
        }),
      ),
    initialPageParam: 0,
    getNextPageParam: (last, all) => {
      const have = all.reduce((n, p) => n + p.items.length, 0);
      return last.items.length > 0 && have < last.total ? have : undefined;
    },
    refetchInterval: running ? 1000 : false,
  });
  const items = writes.data?.pages.flatMap((p) => p.items) ?? [];
  const total = writes.data?.pages[0]?.total ?? 0;
  if (total === 0) return null;
  const toggle = (write: number) =>
    setChosen((before) => new Set(before.has(write) ? [...before].filter((x) => x !== write) : [...before, write]));
  return (
    <section className={css.section}>
      <div className={css.sectionHead}>
        <h2>
          The {num(total)} writes
          {items.some((w) => w.stage !== 'rest') && <span className="quiet">, with those of the trial</span>}
        </h2>
        <span className={css.sheetActs}>
          {onTakeBack && chosen.size > 0 && (
            <Button size="compact-xs" variant="default" onClick={() => onTakeBack([...chosen])}>
              Take these {chosen.size} back
            </Button>
          )}
          <Button
            size="compact-xs"
            variant={failed ? 'light' : 'subtle'}
            aria-pressed={failed}
            onClick={() => setFailed(!failed)}
          >
            only those that did not take
          </Button>
        </span>
      </div>
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
                {onTakeBack && MADE.includes(w.state) && w.stage !== 'after' && (
                  <input
                    type="checkbox"
                    aria-label={`choose the write on ${w.name}`}
                    checked={chosen.has(w.id)}
                    onChange={() => toggle(w.id)}
                  />
                )}{' '}
                {w.name} <span className="quiet">{w.level}</span>
              </td>
              <td>
                <Place kind={w.kind} name={w.custom} />
                {w.stage !== 'rest' && <span className={css.stage}>{w.stage === 'trial' ? 'trial' : 'tidies up'}</span>}
              </td>
              <td className="mono">
                <Difference before={w.before} after={w.after} />
              </td>
              <td>
                {STATE[w.state]}
                {w.problem && <div className={css.bad}>{w.problem}</div>}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {failed && items.length === 0 && <p className="quiet">All of them took.</p>}
      {writes.hasNextPage && (
        <Button
          size="xs"
          variant="subtle"
          loading={writes.isFetchingNextPage}
          onClick={() => void writes.fetchNextPage()}
        >
          More
        </Button>
      )}
    </section>
  );
}

const STATE: Record<Write['state'], string> = {
  waiting: 'waiting',
  sent: 'sent',
  written: 'written',
  verified: 'read back',
  differs: 'differs',
  failed: 'failed',
  left: 'left out',
};
