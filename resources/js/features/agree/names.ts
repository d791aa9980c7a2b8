/** vestigon.naming/1, as it is edited. */
export interface NamePart {
  name: string;
  words?: (string | { word: string; means?: string })[];
  matches?: string;
  optional?: boolean;
  default?: string;
}

export interface Pattern {
  format: 'vestigon.naming/1';
  title?: string;
  separator: string;
  for?: { levels?: string[]; families?: string[]; types?: string[]; platforms?: string[] };
  parts: NamePart[];
}

export interface Names {
  patterns: Pattern[];
}

export const FIRST: Pattern = {
  format: 'vestigon.naming/1',
  title: 'Campaigns',
  separator: '_',
  for: { levels: ['campaign'] },
  parts: [{ name: 'market', words: ['uk'] }, { name: 'aim', words: ['brand', 'sale'] }, { name: 'free' }],
};

export const wordsOf = (part: NamePart): string[] =>
  (part.words ?? []).map((w) => (typeof w === 'string' ? w : w.word));

/** The part with its words out of a line; words keep their meanings. */
export function withWordLine(part: NamePart, line: string): NamePart {
  const means = new Map((part.words ?? []).map((w) => [typeof w === 'string' ? w : w.word, w]));
  const words = line
    .split(/,\s?/)
    .filter((w) => w !== '')
    .map((w) => means.get(w) ?? w);
  const next = { ...part, words };
  if (words.length === 0) delete (next as NamePart).words;
  return next;
}

/**
 * Rows of parts out of a spreadsheet: in the pattern's order, or in that of a first row that names the parts.
 */
export function rowsOfParts(text: string, pattern: Pattern): Record<string, string>[] {
  const lines = text
    .split(/\r?\n/)
    .map((line) => line.split('\t').map((cell) => cell.trim()))
    .filter((cells) => cells.some((cell) => cell !== ''));
  const parts = pattern.parts.map((p) => p.name);
  const first = lines[0]?.filter((cell) => cell !== '') ?? [];
  const named = first.length > 0 && first.every((cell) => parts.includes(cell));
  const columns = named ? lines[0]! : parts;
  return (named ? lines.slice(1) : lines).map((cells) =>
    Object.fromEntries(columns.flatMap((part, i) => (part === '' ? [] : [[part, cells[i] ?? '']]))),
  );
}

/** How a name looks that follows a pattern. */
export const shown = (pattern: Pattern): string =>
  pattern.parts.map((p) => (p.optional ? `(${p.name})` : p.name)).join(pattern.separator);

/** For whom a pattern is, in words. */
export function forWhom(pattern: Pattern): string {
  const { levels, families, types, platforms } = pattern.for ?? {};
  const said = [levels, types && types.map((t) => `type ${t}`), families, platforms].flatMap((list) =>
    list === undefined || list.length === 0 ? [] : [list.join(', ')],
  );
  return said.length === 0 ? 'all elements' : said.join(' · ');
}
