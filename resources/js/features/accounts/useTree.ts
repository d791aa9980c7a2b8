import { keepPreviousData, useQueries, type UseQueryResult } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { api, data, type Schema } from '../../api/client';
import { keyOf } from '../../lib/queries';

export type Row = Schema['Row'];

export const PAGE = 100;

export interface Filter {
  q: string;
  /** gone: those that the platform does not have any more */
  state: Row['state'] | 'gone';
}

/** A line of the table: a row, or a place whose row is still on its way. */
export type Line =
  { row: Row; indent: number; open: boolean } | { row: null; parent: number | null; index: number; indent: number };

interface Tree {
  lines: Line[];
  keys: string[];
  /** that names on this platform have */
  parts: string[];
  total: number;
  /** there are more than the total says */
  more: boolean;
  error: Error | null;
  pending: boolean;
  toggle: (id: number, open?: boolean) => void;
  /** asks for the page that a waiting line is on */
  want: (parent: number | null, index: number) => void;
  openAll: (ids: readonly number[]) => void;
}

const pageKey = (parent: number | null, page: number) => `${parent ?? 'top'}:${page}`;

/** The account as lines of a table: pages of children under what is open, or the flat list that a filter finds. */
export function useTree(client: number, account: number, filter: Filter, under: number | null): Tree {
  const flat = filter.q.trim() !== '' || filter.state !== null;
  const [open, setOpen] = useState<ReadonlySet<number>>(new Set());
  const [wanted, setWanted] = useState<ReadonlySet<string>>(new Set());

  const pages = useMemo(() => {
    const all = flat ? [pageKey(null, 0)] : [pageKey(null, 0), ...[...open].map((id) => pageKey(id, 0))];
    for (const key of wanted)
      if (flat ? key.startsWith('top:') : key.startsWith('top:') || open.has(Number(key.split(':')[0]))) all.push(key);
    return [...new Set(all)].map((key) => {
      const [parent, page] = key.split(':') as [string, string];
      return { parent: parent === 'top' ? null : Number(parent), page: Number(page) };
    });
  }, [open, wanted, flat]);

  const answers = useQueries({
    queries: pages.map(({ parent, page }) => ({
      queryKey: keyOf('rows', account, flat ? filter : null, under, parent, page),
      queryFn: () =>
        data(
          api.GET('/clients/{client}/accounts/{account}/rows', {
            params: {
              path: { client, account },
              query: {
                offset: String(page * PAGE),
                limit: String(PAGE),
                ...(flat
                  ? {
                      q: filter.q.trim() || undefined,
                      state: filter.state ?? undefined,
                      under: under === null ? undefined : String(under),
                    }
                  : { parent: parent === null ? (under === null ? undefined : String(under)) : String(parent) }),
              },
            },
          }),
        ),
      placeholderData: keepPreviousData,
      staleTime: 30_000,
    })),
    combine,
  });

  // as many lines as an account has ads: made anew only when a page has come or something was opened
  const lines = useMemo(() => linesOf(pages, answers.pages, flat ? NONE : open), [pages, answers.pages, flat, open]);
  const top = answers.pages[0];
  return {
    lines,
    keys: top?.keys ?? [],
    parts: top?.parts ?? [],
    total: top?.total ?? 0,
    more: top?.more ?? false,
    error: answers.error,
    pending: answers.pending,
    toggle: (id, want) =>
      setOpen((before) => {
        const after = new Set(before);
        if (want ?? !before.has(id)) after.add(id);
        else after.delete(id);
        return after;
      }),
    want: (parent, index) => {
      const key = pageKey(parent, Math.floor(index / PAGE));
      if (!wanted.has(key)) setWanted((before) => new Set(before).add(key));
    },
    openAll: (ids) => setOpen((before) => new Set([...before, ...ids])),
  };
}

const NONE: ReadonlySet<number> = new Set();

interface Page {
  parent: number | null;
  page: number;
}

const combine = (answers: readonly UseQueryResult<Schema['Rows']>[]) => ({
  pages: answers.map((a) => a.data),
  error: answers.find((a) => a.error)?.error ?? null,
  pending: answers[0]?.isPending ?? true,
});

function linesOf(
  pages: readonly Page[],
  got: readonly (Schema['Rows'] | undefined)[],
  open: ReadonlySet<number>,
): Line[] {
  const lines: Line[] = [];
  const byParent = new Map<number | null, { total: number; rows: Map<number, Row> }>();
  pages.forEach(({ parent, page }, i) => {
    const answer = got[i];
    if (!answer) return;
    const group = byParent.get(parent) ?? { total: answer.total, rows: new Map<number, Row>() };
    answer.rows.forEach((row, n) => group.rows.set(page * PAGE + n, row));
    byParent.set(parent, group);
  });
  const list = (parent: number | null, indent: number) => {
    const group = byParent.get(parent);
    if (!group) {
      if (parent !== null) lines.push({ row: null, parent, index: 0, indent });
      return;
    }
    for (let i = 0; i < group.total; i++) {
      const row = group.rows.get(i);
      if (!row) {
        lines.push({ row: null, parent, index: i, indent });
        continue;
      }
      const isOpen = !row.isAd && open.has(row.id);
      lines.push({ row, indent, open: isOpen });
      if (isOpen) list(row.id, indent + 1);
    }
  };
  list(null, 0);
  return lines;
}
