import type { Schema } from '../../api/client';

type Counting = Schema['Counting'];

/** Hosts and what they are called, a line each: “search.example organic” has the host as its source. */
export const writeReferrers = (referrers: Counting['referrers']): string =>
  referrers
    .map((r) => (r.source === r.host ? `${r.host} ${r.medium}` : `${r.host} ${r.source} ${r.medium}`))
    .join('\n');

/** The number of the first line that is not understood; or the referrers. */
export function readReferrers(text: string): { wrong: number } | { referrers: Counting['referrers'] } {
  const referrers: Counting['referrers'] = [];
  for (const [i, line] of text.split('\n').entries()) {
    const words = line.trim().split(/[\s,;]+/);
    const [host = '', second = '', third] = words;
    if (host === '') continue;
    if (second === '' || words.length > 3) return { wrong: i + 1 };
    referrers.push({ host, source: third === undefined ? host : second, medium: third ?? second });
  }
  return { referrers };
}
