import type { Schema } from '../../api/client';

export type Read = Schema['ManySenders']['items'][number];

/** The most lines that are read at once, as the server takes them. */
export const MOST = 10_000;

/** Lines that were pasted, if they are many URLs and not one text. */
export function manyIn(pasted: string): string[] | null {
  const lines = pasted
    .split(/\r?\n/)
    .map((line) => line.trim())
    .filter((line) => line !== '');
  return lines.filter((line) => /^https?:\/\/\S+$/i.test(line)).length > 1 ? lines : null;
}

/** What can be said of a line: of one ad, of several, of a link, of nothing that is known, or it is no URL. */
export const KINDS = {
  one: 'of one ad',
  several: 'of several ads',
  link: 'of a link',
  none: 'of nothing that is known',
  'not-url': 'no web address',
} as const;

export type Kind = keyof typeof KINDS;

export function kindOf(read: Read): Kind {
  if (!read.isUrl) return 'not-url';
  if (read.ways > 0) return read.ways === 1 ? 'one' : 'several';
  return read.link ? 'link' : 'none';
}

export function countsOf(items: readonly Read[]): [Kind, number][] {
  return (Object.keys(KINDS) as Kind[])
    .map((kind): [Kind, number] => [kind, items.filter((item) => kindOf(item) === kind).length])
    .filter(([, n]) => n > 0);
}
