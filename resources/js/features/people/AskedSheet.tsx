import { Button, Checkbox, Group, Modal, Select } from '@mantine/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { api, data, type Schema } from '../../api/client';
import { Notice } from '../../components/Notice';
import { ColumnSays, SheetGrid } from '../../components/SheetGrid';
import { moment } from '../../lib/moments';
import { many, money, num } from '../../lib/numbers';
import { keyOf, useChanged } from '../../lib/queries';
import { useHere } from '../../lib/useClient';
import { LEFT_OUT } from './leftOut';
import css from './people.module.css';

type Asked = Schema['AskedSheet'];
type Table = Asked['tables'][number];
type Means = NonNullable<Schema['EventColumn']>;
type Understood = NonNullable<Table['understood'][number]>;

const NOTHING = 'nothing';

const MEANINGS: { value: Means; label: string; about: string }[] = [
  { value: 'at', label: 'time', about: 'fact' },
  { value: 'order', label: 'order number', about: 'id' },
  { value: 'value', label: 'value', about: 'custom' },
  { value: 'currency', label: 'currency', about: 'custom' },
  { value: 'click', label: 'click ID', about: 'template' },
  { value: 'name', label: 'conversion', about: 'fact' },
  { value: 'url', label: 'page: its address', about: 'landing' },
  { value: 'referrer', label: 'page before it', about: 'suffix' },
  { value: 'visitor', label: 'visitor', about: 'id' },
];
const CHOICES = [{ value: NOTHING, label: 'nothing: leave it out' }, ...MEANINGS];

const DAYS = [
  { value: 'none', label: 'days: only sure ones' },
  { value: 'day', label: 'days: 25/12/2026' },
  { value: 'month', label: 'days: 12/25/2026' },
];

/** A sheet of orders or page views: what its columns say, its first rows as they are understood, and to take it in. */
export function AskedSheet({ site, file, onClose }: { site: number; file: Schema['SiteFile']; onClose: () => void }) {
  const { client } = useHere();
  const cache = useQueryClient();
  const changed = useChanged();
  const path = { client: client.id, collector: site, siteFile: file.id };
  const key = keyOf('site-file', client.id, file.id);
  const asked = useQuery({
    queryKey: key,
    queryFn: () => data(api.GET('/clients/{client}/sites/{collector}/files/{siteFile}', { params: { path } })),
  });
  const say = useMutation({
    mutationFn: (tables: Table[]) =>
      data(
        api.PUT('/clients/{client}/sites/{collector}/files/{siteFile}', {
          params: { path },
          body: {
            tables: tables.map((t) => ({
              use: t.use,
              means: t.columns.map((c) => c.means),
              decimal: t.decimal,
              days: t.days,
            })),
          },
        }),
      ),
    onMutate: (tables) => cache.setQueryData(key, { ...asked.data!, tables }),
    onSuccess: (told) => cache.setQueryData(key, told),
    onError: () => void asked.refetch(),
  });
  const done = () => {
    changed('sites');
    onClose();
  };
  const take = useMutation({
    mutationFn: () =>
      data(api.POST('/clients/{client}/sites/{collector}/files/{siteFile}/reading', { params: { path } })),
    onSuccess: done,
  });
  const putAway = useMutation({
    mutationFn: () => data(api.DELETE('/clients/{client}/sites/{collector}/files/{siteFile}', { params: { path } })),
    onSuccess: done,
  });
  const problem = asked.error ?? say.error ?? take.error ?? putAway.error;
  const tables = asked.data?.tables ?? [];
  const used = tables.filter((t) => t.use);
  const ready = used.length > 0 && used.every((t) => t.problem === null) && !say.isPending;
  const change = (at: number, what: Partial<Table>) => say.mutate(tables.with(at, { ...tables[at]!, ...what }));
  return (
    <Modal opened onClose={onClose} title={`What ${file.name} says`} size="min(1180px, 94vw)">
      <form
        className={css.asked}
        onSubmit={(e) => {
          e.preventDefault();
          if (ready) take.mutate();
        }}
      >
        {problem && <Notice>{problem.message}</Notice>}
        {tables.map((table, at) => (
          <AskedTable
            key={at}
            table={table}
            currency={asked.data!.currency}
            single={tables.length === 1}
            onChange={(what) => change(at, what)}
          />
        ))}
        <p className="quiet">
          The next sheet of this site that is headed the same is read at once. An order counts once, however often it
          comes.
        </p>
        <Group justify="flex-end">
          <Button variant="default" loading={putAway.isPending} onClick={() => putAway.mutate()}>
            Put it away unread
          </Button>
          <Button type="submit" disabled={!ready} loading={take.isPending} data-autofocus>
            Take it in
          </Button>
        </Group>
      </form>
    </Modal>
  );
}

function AskedTable({
  table,
  currency,
  single,
  onChange,
}: {
  table: Table;
  currency: string;
  single: boolean;
  onChange: (what: Partial<Table>) => void;
}) {
  const has = (means: Means) => table.columns.some((c) => c.means === means);
  return (
    <section aria-label={table.title} className={css.askedTable}>
      <header>
        <h2>{table.title}</h2>
        <span className="quiet">{counted(table.counts)}</span>
        <span style={{ flex: 1 }} />
        {has('value') && (
          <Select
            size="xs"
            w={150}
            aria-label={`numbers of ${table.title}`}
            allowDeselect={false}
            data={[
              { value: '.', label: 'numbers: 1,204.50' },
              { value: ',', label: 'numbers: 1.204,50' },
            ]}
            value={table.decimal}
            onChange={(decimal) => decimal && onChange({ decimal: decimal as Table['decimal'] })}
          />
        )}
        <Select
          size="xs"
          w={170}
          aria-label={`days with slashes of ${table.title}`}
          allowDeselect={false}
          data={DAYS}
          value={table.days ?? 'none'}
          onChange={(days) => onChange({ days: days === 'none' ? null : (days as Table['days']) })}
        />
        {!single && (
          <Checkbox
            size="xs"
            label="read it"
            checked={table.use}
            onChange={(e) => onChange({ use: e.target.checked })}
          />
        )}
      </header>
      {table.problem && (table.use || single) && (
        <p className={css.lacks} role="alert">
          {table.problem}
        </p>
      )}
      {table.counts['two-days'] !== undefined && (
        <p className={css.lacks} role="alert">
          Days like 05/12/2026 could be two. Say above which comes first, the day or the month.
        </p>
      )}
      <SheetGrid
        title={table.title}
        used={table.use}
        headings={table.headings}
        rows={table.rows}
        number={table.headingRow + 2}
        about={(x) => MEANINGS.find((m) => m.value === table.columns[x]?.means)?.about ?? 'nothing'}
        head={(x) => (
          <ColumnSays
            heading={table.headings[x]!}
            sure={table.columns[x]!.certainty}
            why={table.columns[x]!.why}
            choices={CHOICES}
            means={table.columns[x]!.means ?? NOTHING}
            onMeans={(means) =>
              onChange({
                use: table.use || single,
                columns: table.columns.with(x, {
                  means: means === NOTHING ? null : (means as Means),
                  certainty: 'sure',
                  why: 'You said so.',
                }),
              })
            }
          />
        )}
        says={(y) => understood(table.understood[y] ?? null, currency)}
      />
    </section>
  );
}

const IS: Record<string, string> = { convert: 'order', view: 'view', refund: 'taken back' };

function understood(row: Understood | null, currency: string): { text: string; isLeft: boolean } {
  if (row === null) return { text: 'nothing', isLeft: false };
  if (!(row.is in IS)) return { text: `left out: ${LEFT_OUT[row.is] ?? row.is}`, isLeft: true };
  const parts = [
    row.is === 'view' ? 'view' : `${IS[row.is]} ${row.order}`,
    row.at && moment(row.at),
    row.value !== undefined && money(row.value, row.currency ?? currency),
    row.name,
    row.click && `click ${row.click}`,
  ];
  return { text: parts.filter(Boolean).join(' · '), isLeft: false };
}

/** What its first rows are: “of its first rows: 4 orders, 1 taken back; left out: 1 without an order number”. */
function counted(counts: Table['counts']): string {
  const of = (is: string) => counts[is] ?? 0;
  const taken = [
    of('convert') > 0 && many(of('convert'), 'order'),
    of('view') > 0 && many(of('view'), 'view'),
    of('refund') > 0 && `${num(of('refund'))} taken back`,
  ].filter(Boolean);
  const left = Object.entries(counts)
    .filter(([is]) => !(is in IS))
    .map(([is, n]) => `${num(n)} ${LEFT_OUT[is] ?? is}`);
  const all = taken.length > 0 ? taken.join(', ') : 'none that can be taken';
  return `of its first rows: ${all}${left.length > 0 ? `; left out: ${left.join(', ')}` : ''}`;
}
