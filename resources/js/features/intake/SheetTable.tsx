import { Checkbox, Select, TextInput } from '@mantine/core';
import { memo } from 'react';
import { ColumnSays, PlainHeading, SheetGrid } from '../../components/SheetGrid';
import { about, choices, NOTHING, openWords, wordsFor, type Column, type Intake, type Table } from './meanings';
import { Stands } from './Stands';
import css from './intake.module.css';

/** How custom parameters stand in one cell: `{my.name}=value; …`. */
const FORM = [
  ['open', 'before a name'],
  ['close', 'behind a name'],
  ['is', 'between name and value'],
  ['pair', 'between two parameters'],
] as const;

interface Props {
  intake: Intake;
  table: Table;
  at: number;
  onTable: (at: number, what: Partial<Table>) => void;
  onColumn: (at: number, heading: string, what: Partial<Column>) => void;
  /** it was looked at anew */
  onLooked: (intake: Intake) => void;
}

/** A table as it came, with what each of its columns means above it. */
export const SheetTable = memo(function SheetTable({ intake, table, at, onTable, onColumn, onLooked }: Props) {
  const form = table.form;
  return (
    <section className={css.table} aria-label={table.title} data-use={table.use}>
      <header className={css.tableHead}>
        <h2>{table.title}</h2>
        <Stands
          key={`${table.headingRow} ${form?.delimiter} ${form?.encoding}`}
          intake={intake}
          table={table}
          onLooked={onLooked}
        />
        {table.from && <span className="quiet">{table.from}</span>}
        <span style={{ flex: 1 }} />
        {table.problem === null && table.columns.length > 0 && (
          <>
            {table.rowKind ? (
              <span className="quiet">“{table.rowKind.column}” says what each row is</span>
            ) : (
              <Select
                size="xs"
                w={170}
                aria-label={`each row of ${table.title} is`}
                leftSectionWidth={62}
                leftSection={<span className={css.inField}>rows are</span>}
                data={intake.words.levels.map((l) => ({ value: l.id, label: l.label }))}
                value={table.level}
                placeholder="the narrowest"
                clearable
                onChange={(level) => onTable(at, { level })}
              />
            )}
            <Checkbox
              size="xs"
              label="read it"
              checked={table.use}
              onChange={(e) => onTable(at, { use: e.target.checked })}
            />
          </>
        )}
      </header>
      {form?.note && <p className={css.note}>{form.note}</p>}
      {table.problem && (
        <p className={css.note} role="alert">
          {table.problem}
        </p>
      )}
      {table.problem === null && table.headingRow === null && (
        <p className={css.note} role="alert">
          None of its first rows looks like headings, so nothing of it can be understood.
        </p>
      )}
      {table.headings.length > 0 && (
        <SheetGrid
          title={table.title}
          used={table.use}
          headings={table.headings}
          rows={table.rows}
          number={(table.headingRow ?? 0) + 1}
          about={(x) => about(columnOf(table, table.headings[x]!)?.means ?? NOTHING)}
          head={(x) => (
            <ColumnHead
              intake={intake}
              table={table}
              heading={table.headings[x]!}
              column={columnOf(table, table.headings[x]!)}
              onChange={(what) => onColumn(at, table.headings[x]!.trim(), what)}
            />
          )}
        />
      )}
    </section>
  );
});

function ColumnHead({
  intake,
  table,
  heading,
  column,
  onChange,
}: {
  intake: Intake;
  table: Table;
  heading: string;
  column: Column | undefined;
  onChange: (what: Partial<Column>) => void;
}) {
  if (!column) {
    return <PlainHeading>{heading}</PlainHeading>;
  }
  const words = wordsFor(intake.words, column.means);
  const open = openWords(intake.words, column);
  const listed = words === null ? [] : [...open, ...Object.keys(column.values ?? {})];
  const sure = open.length > 0 ? 'open' : column.certainty;
  return (
    <>
      <ColumnSays
        heading={heading}
        sure={sure}
        why={column.why}
        choices={choices(intake.words, table, column)}
        means={column.means}
        onMeans={(means) => onChange({ means, certainty: 'sure', why: 'You said so.' })}
      />
      {column.means === 'custom' && (
        <div className={css.form}>
          {FORM.map(([part, label]) => (
            <TextInput
              key={part}
              size="xs"
              aria-label={`${label} in “${heading}”`}
              title={label}
              value={column.form[part]}
              onChange={(e) => onChange({ form: { ...column.form, [part]: e.target.value } })}
            />
          ))}
        </div>
      )}
      {listed.map((word) => (
        <div key={word} className={css.word} data-open={open.includes(word)}>
          <span title={word}>{word}</span>
          <Select
            size="xs"
            variant="unstyled"
            rightSectionWidth={18}
            comboboxProps={{ width: 120, keepMounted: false }}
            aria-label={`what “${word}” means`}
            data={words ?? []}
            value={column.values?.[word] ?? null}
            placeholder="?"
            allowDeselect={false}
            onChange={(says) => says && onChange({ values: { ...column.values, [word]: says } })}
          />
        </div>
      ))}
    </>
  );
}

const columnOf = (table: Table, heading: string): Column | undefined =>
  table.columns.find((c) => c.heading.trim().toLowerCase() === heading.trim().toLowerCase());
