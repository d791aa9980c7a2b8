import { Select, type ComboboxData } from '@mantine/core';
import type { ReactNode } from 'react';
import css from './sheetGrid.module.css';

const SURE = { sure: 'sure', likely: 'likely', open: 'please look' } as const;

interface Props {
  title: string;
  used: boolean;
  headings: string[];
  rows: unknown[][];
  /** the first row's, as a spreadsheet counts them */
  number: number;
  /** what a column is about, for its tint */
  about: (at: number) => string;
  head: (at: number) => ReactNode;
  /** what is understood of a row */
  says?: (row: number) => { text: ReactNode; isLeft: boolean };
}

/** A table as it came: above each column what it means, its first rows below. */
export function SheetGrid({ title, used, headings, rows, number, about, head, says }: Props) {
  return (
    <div className={css.sheet} tabIndex={0} aria-label={`columns of ${title}`} data-use={used}>
      <table>
        <thead>
          <tr>
            <td className={css.corner} aria-label="row" />
            {headings.map((_, x) => (
              <th key={x} data-about={about(x)} scope="col">
                {head(x)}
              </th>
            ))}
            {says && (
              <th className={css.says} scope="col">
                <div className={css.heading}>is understood as</div>
              </th>
            )}
          </tr>
        </thead>
        <tbody>
          {rows.map((row, y) => (
            <tr key={y}>
              <td className={css.corner}>{number + y}</td>
              {headings.map((_, x) => (
                <td key={x} data-about={about(x)} title={String(row[x] ?? '')}>
                  {String(row[x] ?? '')}
                </td>
              ))}
              {says && (
                <td className={css.says} data-left={says(y).isLeft}>
                  {says(y).text}
                </td>
              )}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** What a column means, how sure that is and why; to be said otherwise. */
export function ColumnSays({
  heading,
  sure,
  why,
  choices,
  means,
  onMeans,
}: {
  heading: string;
  sure: keyof typeof SURE;
  why: string;
  choices: ComboboxData;
  means: string;
  onMeans: (means: string) => void;
}) {
  return (
    <>
      <div className={css.heading} title={why}>
        <span className={css.sure} data-sure={sure} role="img" aria-label={SURE[sure]} />
        {heading}
      </div>
      <Select
        size="xs"
        variant="unstyled"
        rightSectionWidth={18}
        searchable
        aria-label={`what “${heading}” means`}
        comboboxProps={{ width: 260, position: 'bottom-start', keepMounted: false }}
        data={choices}
        value={means}
        maxDropdownHeight={340}
        nothingFoundMessage="Nothing is called that"
        allowDeselect={false}
        onChange={(said) => said && onMeans(said)}
      />
    </>
  );
}

/** A heading of which nothing is known. */
export const PlainHeading = ({ children }: { children: ReactNode }) => <div className={css.heading}>{children}</div>;
