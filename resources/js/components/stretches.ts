import type { Schema } from '../api/client';

type Segment = Schema['Segment'];

export interface Stretch {
  text: string;
  segment: Segment;
  trouble: boolean;
}

/** Cuts segments where pairs of the given keys begin and end, so that these can be marked. Put end to end, the stretches are the segments. */
export function split(segments: readonly Segment[], bad: readonly string[]): Stretch[] {
  const keys = bad.filter((k) => k !== '').map((k) => k.replace(/[.*+?^${}()|[\]\\]/g, '\\$&'));
  const begins = keys.length === 0 ? null : new RegExp(`(?<=[?&]|%3F|%26|^)(?:${keys.join('|')})(?:=|%3D)`, 'gi');
  const stretches: Stretch[] = [];
  let inside = false;
  for (const segment of segments) {
    let rest = segment.text;
    while (rest !== '') {
      const at = inside ? rest.search(/[&#]|%26/i) : begins === null ? -1 : firstMatch(begins, rest);
      const text = at < 0 ? rest : rest.slice(0, at);
      if (text !== '') stretches.push({ text, segment, trouble: inside });
      if (at < 0) break;
      rest = rest.slice(at);
      inside = !inside;
    }
  }
  return stretches;
}

function firstMatch(pattern: RegExp, text: string): number {
  pattern.lastIndex = 0;
  return pattern.exec(text)?.index ?? -1;
}
