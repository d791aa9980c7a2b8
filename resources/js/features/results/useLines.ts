import { useQueries } from '@tanstack/react-query';
import { useMemo } from 'react';
import { api, data, type Schema } from '../../api/client';
import { keyOf } from '../../lib/queries';
import { bodyOf, nothingOf, type Question } from './question';

export type Results = Schema['Results'];
type Line = Schema['ResultLine'];

/** A line of the table: where it stands, and what it is called. */
export interface Shown {
  /** the values above it and its own; the sum of all: none */
  path: readonly string[];
  name: string;
  line: Pick<Line, 'now' | 'before'>;
  isOpen: boolean;
  mayOpen: boolean;
  /** so many lines in one, which can't be opened */
  folds: number | null;
}

export const idOf = (path: readonly string[]): string => JSON.stringify(path);

/** The lines of a question, and below those that are open. */
export function useLines(
  client: number,
  question: Question,
  days: { from: string; to: string },
  open: ReadonlySet<string>,
  enabled: boolean,
): { first: Results | undefined; lines: Shown[]; isFetching: boolean; error: Error | null } {
  const above = useMemo(() => [[] as string[], ...[...open].map((id) => JSON.parse(id) as string[])], [open]);
  const answers = useQueries({
    queries: above.map((path) => {
      const body = bodyOf(question, days, path);
      return {
        queryKey: keyOf('results', client, body),
        queryFn: () => data(api.POST('/clients/{client}/results', { params: { path: { client } }, body })),
        enabled,
        staleTime: 60_000,
        // what comes shows by itself: soon where there is nothing yet
        refetchInterval: (query: { state: { data?: Results } }) =>
          path.length > 0 ? false : query.state.data?.lines.length === 0 ? 3000 : 60_000,
        placeholderData: path.length === 0 ? (last: Results | undefined) => last : undefined,
      };
    }),
  });
  const known = new Map(above.map((path, i) => [idOf(path), answers[i]?.data]));
  const lines: Shown[] = [];
  const put = (path: readonly string[]) => {
    const told = known.get(idOf(path));
    const by = question.by[path.length];
    if (!told || !by) return;
    for (const line of told.lines) {
      const value = line.by[0] ?? '';
      const own = [...path, value];
      const isOpen = open.has(idOf(own));
      const name = value === '' ? nothingOf(by) : (told.names[0]?.[value] ?? value);
      lines.push({ path: own, name, line, isOpen, mayOpen: own.length < question.by.length, folds: null });
      if (isOpen) put(own);
    }
    if (told.others)
      lines.push({
        path: [...path, '\0'],
        name: '',
        line: told.others,
        isOpen: false,
        mayOpen: false,
        folds: told.others.lines,
      });
  };
  put([]);
  return {
    first: answers[0]?.data,
    lines,
    isFetching: answers.some((a) => a.isFetching),
    error: answers.find((a) => a.error)?.error ?? null,
  };
}
