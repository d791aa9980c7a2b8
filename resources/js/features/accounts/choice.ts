import { useCallback, useState } from 'react';
import type { Schema } from '../../api/client';
import type { Filter, Line } from './useTree';

/** what an act is about */
export type Over = Schema['Over'];

/** bring in line, edit texts, keep the choice as a filter */
export type Act = 'line' | 'edit' | 'keep';

/** The rows that are chosen, whatever is in sight. */
export function useChoice(lines: readonly Line[]) {
  const [chosen, setChosen] = useState<ReadonlySet<number>>(new Set());
  const put = useCallback((ids: readonly number[]) => setChosen((before) => new Set([...before, ...ids])), []);
  const toggle = useCallback(
    (id: number) =>
      setChosen((before) => (before.has(id) ? new Set([...before].filter((x) => x !== id)) : new Set([...before, id]))),
    [],
  );
  const clear = useCallback(() => setChosen(new Set()), []);
  const all = useCallback(() => setChosen(new Set(lines.flatMap((l) => (l.row ? [l.row.id] : [])))), [lines]);
  return { chosen, put, toggle, clear, all };
}

/** Rows that are chosen, or else all that the filter finds, or else the whole account. */
export function overOf(chosen: ReadonlySet<number>, filter: Filter, under: number | null): Over {
  if (chosen.size > 0) return { nodes: [...chosen] };
  const q = filter.q.trim();
  return {
    ...(under === null ? {} : { nodes: [under] }),
    ...(q === '' ? {} : { q }),
    ...(filter.state === null || filter.state === 'gone' ? {} : { state: filter.state }),
  };
}
