import { useQueries, type UseQueryResult } from '@tanstack/react-query';
import { useMemo } from 'react';
import { api, data, type Schema } from '../../api/client';
import { keyOf } from '../../lib/queries';
import type { Line } from './useTree';

export type Sent = Schema['Sends']['items'][number] & { lookedAt: number };

const AT_ONCE = 40;

/** What the ads below the elements of the table send; asked for behind the rows, which do not wait for it. */
export function useSends(client: number, account: number, lines: readonly Line[], on: boolean): Map<number, Sent> {
  const asked = useMemo(() => {
    const byParent = new Map<number | null, number[]>();
    for (const { row } of on ? lines : []) {
      if (!row || row.isAd) continue;
      const ids = byParent.get(row.parent) ?? [];
      ids.push(row.id);
      byParent.set(row.parent, ids);
    }
    return [...byParent.values()].flatMap(inChunks);
  }, [lines, on]);
  return useQueries({
    queries: asked.map((nodes) => ({
      queryKey: keyOf('rows', 'sends', account, nodes),
      queryFn: () =>
        data(
          api.GET('/clients/{client}/accounts/{account}/sends', {
            params: { path: { client, account }, query: { 'nodes[]': nodes } },
          }),
        ),
      staleTime: 30_000,
    })),
    combine,
  });
}

const combine = (answers: readonly UseQueryResult<Schema['Sends']>[]) => {
  const sent = new Map<number, Sent>();
  for (const { data: answer } of answers) {
    for (const item of answer?.items ?? []) sent.set(item.node, { ...item, lookedAt: answer!.lookedAt });
  }
  return sent;
};

function inChunks(ids: readonly number[]): number[][] {
  return ids.length === 0 ? [] : [ids.slice(0, AT_ONCE), ...inChunks(ids.slice(AT_ONCE))];
}

/** In one cell: the one value that all send, or how many there are; and the same in full. */
export function sentWords(sent: Sent, ads: number, key: string): { short: string; full: string; mixed: boolean } {
  const of = sent.keys[key];
  if (!of || sent.ads === 0) return { short: '', full: '', mixed: false };
  const all = sent.ads < ads ? `the first ${sent.ads} of ${ads} ads` : sent.ads === 1 ? 'its ad' : `all ${ads} ads`;
  const none = of.absent > 0 ? ` ${of.absent} ${of.absent === 1 ? 'does' : 'do'} not send it.` : '';
  if (of.count === 0) return { short: 'none', full: `Of ${all} none sends it.`, mixed: true };
  const listed = of.values.map((v) => v || '(empty)').join(', ') + (of.count > of.values.length ? ' …' : '');
  if (of.count === 1) {
    return {
      short: (of.values[0] || '(empty)') + (of.absent > 0 ? ' or none' : ''),
      full: `${listed}: of ${all}.${none}`,
      mixed: of.absent > 0,
    };
  }
  const least = sent.ads < ads ? '≥ ' : '';
  return { short: `${least}${of.count} values`, full: `${listed}: of ${all}.${none}`, mixed: true };
}
