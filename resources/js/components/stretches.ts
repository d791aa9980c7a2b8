import type { Schema } from '../api/client';

type Segment = Schema['Segment'];

export interface Stretch {
  text: string;
  segment: Segment;
  trouble: boolean;
}

const MARK = '[?&#]|%3F|%26';

/**
 * Cuts segments where pairs of the given keys begin and end, so that these can be marked. Put end to end, the
 * stretches are the segments.
 */
export function split(segments: readonly Segment[], bad: readonly string[]): Stretch[] {
  const keys = bad.filter((k) => k !== '').map((k) => k.replace(/[.*+?^${}()|[\]\\]/g, '\\$&'));
  const isBad = keys.length === 0 ? null : new RegExp(`^(?:${MARK})(?:${keys.join('|')})(?:=|%3D)`, 'i');
  const stretches: Stretch[] = [];
  let trouble = false;
  for (const segment of segments) {
    for (const piece of segment.text.split(new RegExp(`(?=${MARK})`, 'i'))) {
      if (new RegExp(`^(?:${MARK})`, 'i').test(piece)) trouble = isBad?.test(piece) ?? false;
      const last = stretches.at(-1);
      if (last && last.segment === segment && last.trouble === trouble) last.text += piece;
      else if (piece !== '') stretches.push({ text: piece, segment, trouble });
    }
  }
  return stretches;
}
