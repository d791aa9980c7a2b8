/** vestigon.channels/1, as it is edited. */
export interface Test {
  key: string;
  equals?: string;
  in?: string[];
  begins?: string[];
  ends?: string[];
  matches?: string;
}

export interface Rule {
  channel: string;
  all: Test[];
}

export interface Channels {
  format: 'vestigon.channels/1';
  keys: Record<string, string>;
  rules: Rule[];
  otherwise: string;
  title?: string;
}

export const WAYS = ['in', 'begins', 'ends', 'matches'] as const;
export type Way = (typeof WAYS)[number];

export const WAY_WORDS: Record<Way, string> = {
  in: 'is one of',
  begins: 'begins with',
  ends: 'ends with',
  matches: 'matches',
};

/** What a test says one way, as a line to type. */
export const line = (test: Test, way: Way): string =>
  way === 'matches' ? (test.matches ?? '') : (way === 'in' ? words(test) : (test[way] ?? [])).join(', ');

const words = (test: Test): string[] => test.in ?? (test.equals === undefined ? [] : [test.equals]);

/** The test with a line read back; an empty line says nothing that way. A pattern stands alone. */
export function said(test: Test, way: Way, text: string): Test {
  if (way === 'matches') return text === '' ? { key: test.key, in: [] } : { key: test.key, matches: text };
  const list = text === '' ? [] : text.split(/,\s?/);
  const next: Test = { key: test.key, in: words(test), begins: test.begins, ends: test.ends, [way]: list };
  for (const one of ['in', 'begins', 'ends'] as const) if ((next[one] ?? []).length === 0) delete next[one];
  return next.in || next.begins || next.ends ? next : { ...next, in: [] };
}

/** The ways in which a test says something. */
export const waysOf = (test: Test): Way[] =>
  test.matches !== undefined ? ['matches'] : WAYS.filter((w) => w !== 'matches' && line(test, w) !== '');

/** A rule on another rung. */
export function moved(rules: readonly Rule[], from: number, to: number): Rule[] {
  const next = [...rules];
  const [one] = next.splice(from, 1);
  next.splice(to, 0, one!);
  return next;
}

/** What the rules look at: parameters, and the family of the platform whose click ID a click has. */
export function asked(channels: Channels): string[] {
  const tested = channels.rules.flatMap((r) => r.all.map((t) => channels.keys[t.key] ?? t.key));
  return [...new Set([...Object.values(channels.keys), ...tested])];
}
