import type { Schema } from '../../api/client';
import { base64 } from '../../lib/base64';

export type Look = Schema['NumbersLook'];
export type Line = Schema['NumbersLine'];
export type NamingColumn = Look['columns'][number];
export type By = NamingColumn['by'];

/** A report as it was brought: what is sent of it. */
export interface Brought {
  id: number;
  name: string;
  content: string;
}

/** What a column's cells are taken for; null: they name nothing. */
export const MEANS: readonly [By | null, string][] = [
  ['number', 'numbers'],
  ['ending', 'last digits of numbers'],
  ['name', 'names'],
  [null, 'nothing that is known'],
];

export const meansOf = (by: By | null): string => MEANS.find(([of]) => of === by)?.[1] ?? '';

let last = 0;

/** Packed before it is sent: reports are long and say much the same in every row. */
export async function brought(name: string, what: Blob): Promise<Brought> {
  const packed = what.stream().pipeThrough(new CompressionStream('gzip'));
  const bytes = new Uint8Array(await new Response(packed).arrayBuffer());
  return { id: ++last, name, content: base64(bytes) };
}

/** A line of the table that is shown: a row of the report, or one beneath a line for several. */
export interface Shown {
  line: Line;
  beneath: boolean;
  /** the line's place among all lines */
  at: number;
}

export type Only = 'all' | 'several' | 'unknown';

/** The lines that are to be seen, those beneath one that is open behind it. */
export function shownOf(look: Look, only: Only, open: ReadonlySet<number>): Shown[] {
  return look.lines.flatMap((line, at) => {
    if (only !== 'all' && !line.how.includes(only)) return [];
    const rows = open.has(at) ? (line.of ?? []) : [];
    return [{ line, beneath: false, at }, ...rows.map((row) => ({ line: row, beneath: true, at }))];
  });
}

/** What is added beside a naming column: the names of numbers, the numbers of names. */
export const added = (line: Line, columns: readonly NamingColumn[], i: number): string => {
  const named = line.named[i];
  return named ? (columns[i]?.by === 'name' ? named.number : named.name) : '';
};

/** One column of what is added, to be pasted beside the report's own. */
export const asColumn = (look: Look, i: number): string =>
  look.lines.map((line) => added(line, look.columns, i).replace(/[\t\r\n]+/g, ' ')).join('\n');
