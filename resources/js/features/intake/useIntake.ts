import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback, useMemo, useState } from 'react';
import { api, data } from '../../api/client';
import { keyOf, useChanged } from '../../lib/queries';
import { useHere } from '../../lib/useClient';
import type { CellWords, Column, Intake, Table } from './meanings';

const NO_WORDS: CellWords = { decimal: '.', blank: [], totals: [] };

/** An intake, what a person has said of its tables here and not sent yet, and what can be done with it. */
export function useIntake(id: number) {
  const { client } = useHere();
  const queries = useQueryClient();
  const changed = useChanged();
  const [said, setSaid] = useState<{ revision: number; tables: Table[]; cells: CellWords } | null>(null);
  const [whole, setWhole] = useState<Record<string, boolean>>({});
  const path = { client: client.id, intake: id };
  const query = useQuery({
    queryKey: keyOf('intake', id),
    queryFn: () => data(api.GET('/clients/{client}/intakes/{intake}', { params: { path } })),
    refetchInterval: (q) => (q.state.data?.status === 'reading' ? 700 : false),
  });
  const intake = query.data;
  const isOurs = said !== null && said.revision === intake?.revision;
  const tables = useMemo(() => (isOurs ? said.tables : (intake?.tables ?? [])), [isOurs, said, intake]);
  const cells = isOurs ? said.cells : (intake?.cells ?? NO_WORDS);
  const put = useCallback((next: Intake) => queries.setQueryData(keyOf('intake', id), next), [queries, id]);
  const change = useCallback(
    (at: number, what: Partial<Table>) =>
      intake &&
      setSaid({
        revision: intake.revision,
        tables: tables.map((t, i) => (i === at ? { ...t, ...what } : t)),
        cells,
      }),
    [intake, tables, cells],
  );
  const changeColumn = useCallback(
    (at: number, heading: string, what: Partial<Column>) =>
      change(at, {
        columns: (tables[at]?.columns ?? []).map((c) => (c.heading === heading ? { ...c, ...what } : c)),
      }),
    [change, tables],
  );
  const read = useMutation({
    mutationFn: (title: string) =>
      data(
        api.PUT('/clients/{client}/intakes/{intake}/reading', {
          params: { path },
          body: {
            revision: intake!.revision,
            title,
            cells,
            tables: tables.map((t) => ({
              title: t.title,
              use: t.use,
              level: t.level,
              rowKind: t.rowKind,
              columns: t.columns.map(({ heading, means, values, form }) => ({
                heading,
                means,
                values,
                ...(means === 'custom' ? { form } : {}),
              })),
            })),
          },
        }),
      ),
    onSuccess: put,
  });
  const levels = intake?.counts?.levels ?? [];
  const begin = useMutation({
    mutationFn: () =>
      data(
        api.POST('/clients/{client}/intakes/{intake}/import', {
          params: { path },
          body: {
            revision: intake!.revision,
            whole: Object.fromEntries(levels.map((l) => [l.level, whole[l.level] ?? (l.whole && l.known > 0)])),
          },
        }),
      ),
    onSuccess: (next) => {
      put(next);
      changed('work', 'texts', 'intakes');
    },
  });
  return {
    query,
    intake,
    tables,
    /** has anything been said that was not read by yet? */
    isChanged: isOurs,
    change,
    changeColumn,
    cells,
    changeCells: (what: Partial<CellWords>) =>
      intake && setSaid({ revision: intake.revision, tables, cells: { ...cells, ...what } }),
    put,
    read,
    begin,
    isWhole: (level: string) => {
      const l = levels.find((x) => x.level === level);
      return whole[level] ?? (l !== undefined && l.whole && l.known > 0);
    },
    setWhole: (level: string, is: boolean) => setWhole((w) => ({ ...w, [level]: is })),
  };
}
