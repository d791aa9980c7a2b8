import { Button, Checkbox, SegmentedControl, TagsInput, TextInput } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { api, data, type Schema } from '../../api/client';
import { Bar } from '../../components/Bar';
import { Notice } from '../../components/Notice';
import { many, num } from '../../lib/numbers';
import { keyOf } from '../../lib/queries';
import { useHere } from '../../lib/useClient';
import { about, isOpen } from './meanings';
import type { useIntake } from './useIntake';
import css from './intake.module.css';

const FATES = [
  ['new', 'new'],
  ['changed', 'changed'],
  ['same', 'as they were'],
  ['gone', 'said to be gone'],
  ['left', 'left out'],
] as const;

const WRONG: Record<string, string> = {
  'damaged-number': 'numbers that a spreadsheet damaged',
  'unknown-word': 'words that the map does not know',
  'missing-column': 'columns that are not there',
  'said-twice': 'elements said twice, differently',
  'named-alike': 'different elements of one name',
  'no-identity': 'rows that do not say what they are',
  'no-parent': 'elements without what they stand under',
  'other-account': 'rows of another account',
  'no-headings': 'tables without headings',
  'no-day': 'tables whose figures are of no day',
  'unreadable-figure': 'days and numbers that can’t be read',
  moved: 'elements that stand elsewhere now',
};

/** What the rows make: nothing of it is stored before a person says so. */
export function Makes({
  of,
  title,
  onTitle,
}: {
  of: ReturnType<typeof useIntake>;
  title: string;
  onTitle: (t: string) => void;
}) {
  const { intake, tables, read, begin, isChanged } = of;
  const { mayEdit } = useHere();
  if (!intake) return null;
  const used = tables.filter((t) => t.use);
  const open = tables.some((t) => isOpen(intake.words, t));
  const counts = isChanged || intake.status === 'reading' ? null : intake.counts;
  const changesNothing =
    counts !== null &&
    counts.new + counts.changed + counts.gone === 0 &&
    !counts.figures?.ads &&
    counts.levels.every((l) => l.missing === 0 || !of.isWhole(l.level));
  return (
    <aside className={css.makes} aria-label="what they make">
      <h2>What they make</h2>
      {intake.status === 'reading' && (
        <p role="status">
          <Bar done={0} of={0} label="reading" /> {many(intake.done, 'row')} read
        </p>
      )}
      {counts === null && intake.status !== 'reading' && (
        <p className="quiet">
          {isChanged && intake.counts ? 'You have changed what columns mean. ' : ''}
          Look over what each column means, then have every row read. Nothing is stored by that.
        </p>
      )}
      {counts && <Counts counts={counts} of={of} />}
      {changesNothing && <p role="status">They change nothing: all of it is here already.</p>}
      {intake.problem && <Notice>{intake.problem}</Notice>}
      {(read.error ?? begin.error) && <Notice>{(read.error ?? begin.error)!.message}</Notice>}
      {mayEdit && (
        <TextInput
          size="xs"
          label="The map is kept as"
          value={title}
          maxLength={100}
          onChange={(e) => onTitle(e.target.value)}
        />
      )}
      {mayEdit && <CellWords of={of} />}
      {mayEdit && (
        <div className={css.acts}>
          <Button
            size="xs"
            variant={counts ? 'default' : 'filled'}
            disabled={used.length === 0 || title.trim() === '' || intake.status === 'reading'}
            loading={read.isPending}
            onClick={() => read.mutate(title)}
            rightSection={<kbd>r</kbd>}
          >
            Read every row
          </Button>
          {counts && !changesNothing && (
            <Button size="xs" loading={begin.isPending} onClick={() => begin.mutate()} rightSection={<kbd>b</kbd>}>
              {counts.new + counts.changed > 0 ? `Bring ${num(counts.new + counts.changed)} in` : 'Bring it in'}
            </Button>
          )}
        </div>
      )}
      {open && !counts && <p className={css.open}>Some words have no meaning yet; what they say would be left out.</p>}
      {counts && <Problems intake={intake} counts={counts} />}
    </aside>
  );
}

/** Words in cells that say something of the row, whatever column they stand in. */
function CellWords({ of }: { of: ReturnType<typeof useIntake> }) {
  const { cells, changeCells, tables } = of;
  const figures = tables.some((t) => t.use && t.columns.some((c) => about(c.means) === 'figure'));
  return (
    <>
      <TagsInput
        size="xs"
        label="Cells that mean nothing"
        placeholder="-- and"
        value={cells.blank}
        maxTags={50}
        onChange={(blank) => changeCells({ blank })}
      />
      <TagsInput
        size="xs"
        label="Rows of totals begin with"
        placeholder="Total and"
        value={cells.totals}
        maxTags={50}
        onChange={(totals) => changeCells({ totals })}
      />
      {figures && (
        <SegmentedControl
          size="xs"
          aria-label="decimal mark"
          value={cells.decimal}
          data={[
            { value: '.', label: '1,234.50' },
            { value: ',', label: '1.234,50' },
          ]}
          onChange={(decimal) => changeCells({ decimal: decimal === ',' ? ',' : '.' })}
        />
      )}
    </>
  );
}

function Counts({ counts, of }: { counts: Schema['IntakeCounts']; of: ReturnType<typeof useIntake> }) {
  const all = FATES.reduce((n, [fate]) => n + counts[fate], 0);
  return (
    <>
      <p>
        <b>{many(counts.rows, 'row')}</b>
        {counts.totals > 0 && <span className="quiet">, {num(counts.totals)} of totals left out</span>} make{' '}
        <b>{many(all, 'element')}</b>.
      </p>
      <div className={css.fates} aria-hidden>
        {FATES.map(([fate]) => counts[fate] > 0 && <i key={fate} data-fate={fate} style={{ flex: counts[fate] }} />)}
      </div>
      <dl className={css.legend}>
        {FATES.map(
          ([fate, words]) =>
            counts[fate] > 0 && (
              <div key={fate}>
                <dt>
                  <i data-fate={fate} aria-hidden /> {words}
                </dt>
                <dd>{num(counts[fate])}</dd>
              </div>
            ),
        )}
        {counts.moved > 0 && (
          <div>
            <dt>stand elsewhere now</dt>
            <dd>{num(counts.moved)}</dd>
          </div>
        )}
      </dl>
      {counts.figures && <Figures {...counts.figures} />}
      {counts.levels
        .filter((l) => l.missing > 0)
        .map((l) => (
          <Checkbox
            key={l.level}
            size="xs"
            label={`The ${num(l.missing)} of ${num(l.known)} ${l.label} elements that are not in the sheets are gone`}
            description={
              of.isWhole(l.level) ? 'Kept with all their history, out of proofs and changes.' : 'They stay as they are.'
            }
            checked={of.isWhole(l.level)}
            onChange={(e) => of.setWhole(l.level, e.target.checked)}
          />
        ))}
    </>
  );
}

/** What the sheets say of ads by day. */
function Figures({ ads, days, from, to, above }: NonNullable<Schema['IntakeCounts']['figures']>) {
  const { client } = useHere();
  return (
    <p className={css.figures}>
      {ads > 0 && (
        <>
          Figures of <b>{many(ads, 'ad')}</b> on {many(days, 'day')}, {from === to ? from : `${from} to ${to}`}, in{' '}
          {client.currency}. What was said of these days before is replaced.{' '}
        </>
      )}
      {above > 0 && (
        <span className="quiet">
          {many(above, 'figure')} of campaigns and the like {above === 1 ? 'is' : 'are'} left out: export them by ad.
        </span>
      )}
    </p>
  );
}

function Problems({ intake, counts }: { intake: Schema['Intake']; counts: Schema['IntakeCounts'] }) {
  const { client } = useHere();
  const [shown, setShown] = useState<string | null>(null);
  const kinds = Object.entries(counts.problems);
  const list = useQuery({
    queryKey: keyOf('intake-problems', intake.id, intake.revision, shown),
    queryFn: () =>
      data(
        api.GET('/clients/{client}/intakes/{intake}/problems', {
          params: { path: { client: client.id, intake: intake.id }, query: { code: shown! } },
        }),
      ),
    enabled: shown !== null,
  });
  if (kinds.length === 0) return <p className="quiet">Nothing is wrong with any row.</p>;
  const href = (as: string) => `/api/v1/clients/${client.id}/intakes/${intake.id}/problems/file?as=${as}`;
  return (
    <section className={css.problems} aria-label="what is wrong with rows">
      <h2>
        What is wrong{' '}
        <span className="quiet">
          take it as{' '}
          <a href={href('csv')} download>
            CSV
          </a>{' '}
          <a href={href('xlsx')} download>
            XLSX
          </a>
          , or{' '}
          <a href={href('rows')} download>
            the rows with errors
          </a>{' '}
          to mend and drop here again
        </span>
      </h2>
      {kinds.map(([code, n]) => (
        <div key={code}>
          <button
            type="button"
            className={css.kind}
            aria-expanded={shown === code}
            onClick={() => setShown(shown === code ? null : code)}
          >
            <b>{num(n)}</b> {WRONG[code] ?? code}
          </button>
          {shown === code && (
            <ul tabIndex={0} aria-label={WRONG[code] ?? code}>
              {list.data?.items.map((p) => (
                <li key={p.id} data-severity={p.severity}>
                  <span className="mono">
                    {p.table} {p.row}
                    {p.column && ` ${p.column}`}
                  </span>{' '}
                  {p.says}
                </li>
              ))}
              {n > 100 && <li className="quiet">The first hundred; all of them are in the sheet to take away.</li>}
            </ul>
          )}
        </div>
      ))}
    </section>
  );
}
