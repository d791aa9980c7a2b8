import type { Schema } from '../../api/client';

/** A row of the bench: a link to be made, or several where a cell has several words. */
export interface Row {
  title: string;
  landing: string;
  pairs: Record<string, string>;
  code: string;
}

export const EMPTY: Row = { title: '', landing: '', pairs: {}, code: '' };

/** Between words of a cell that make a link each. */
export const EACH = '|';

export const isEmpty = (row: Row): boolean =>
  [row.title, row.landing, row.code, ...Object.values(row.pairs)].every((cell) => cell.trim() === '');

/** The cell of a column: `title`, `landing`, `code`, or a key. */
export const cellOf = (row: Row, column: string): string =>
  column === 'title' || column === 'landing' || column === 'code' ? row[column] : (row.pairs[column] ?? '');

export const withCell = (row: Row, column: string, text: string): Row =>
  column === 'title' || column === 'landing' || column === 'code'
    ? { ...row, [column]: text }
    : { ...row, pairs: { ...row.pairs, [column]: text } };

/** Cells out of a spreadsheet, put in from one on: to the right and below. What is there already is written over. */
export function pasteInto(
  rows: readonly Row[],
  columns: readonly string[],
  at: { row: number; column: string },
  text: string,
): Row[] {
  const next = rows.map((row) => row);
  const first = columns.indexOf(at.column);
  const lines = text.replace(/\r?\n$/, '').split(/\r?\n/);
  lines.forEach((line, down) => {
    line.split('\t').forEach((cell, right) => {
      const column = columns[first + right];
      if (column !== undefined) next[at.row + down] = withCell(next[at.row + down] ?? EMPTY, column, cell.trim());
    });
  });
  return next;
}

const words = (cell: string): string[] =>
  cell.includes(EACH)
    ? cell
        .split(EACH)
        .map((word) => word.trim())
        .filter((word) => word !== '')
    : [cell.trim()];

/** The links that a row makes: one for each choice of words, the last cell's changing first. */
export function linksOf(row: Row): Row[] {
  let links: Row[] = [{ ...row, title: row.title.trim(), landing: '', pairs: {}, code: row.code.trim() }];
  for (const column of ['landing', ...Object.keys(row.pairs)]) {
    links = links.flatMap((link) => words(cellOf(row, column)).map((word) => withCell(link, column, word)));
  }
  return links;
}

/** As the server takes it. */
export const asked = (link: Row, short: boolean, host: string): Schema['LinksBody']['rows'][number] => ({
  landing: link.landing,
  pairs: link.pairs,
  title: link.title,
  short: short || link.code !== '',
  ...(link.code === '' ? {} : { code: link.code }),
  ...(host === '' ? {} : { host }),
});

/** Links as cells of a spreadsheet: what for, short address, and the link itself. */
export const asCells = (links: readonly { title: string; short: string | null; url: string }[]): string =>
  links.map((link) => [link.title, link.short ?? '', link.url].join('\t')).join('\n');

/** A key as its column is headed: the trade’s `utm_` says nothing that the place does not. */
export const heading = (key: string): string => key.replace(/^utm_/, '');
