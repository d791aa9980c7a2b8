import type { Schema } from '../api/client';

type Segments = readonly Schema['Segment'][];

const HOST = /^https?:\/\/[^/?#]*/i;

/** In a list of one site's links a page is told by its path: what a link carries is what tells links apart. */
export const withoutHost = (segments: Segments): Schema['Segment'][] =>
  segments.map((s, i) => (i === 0 ? { ...s, text: pathOf(s.text) } : s));

export const pathOf = (url: string): string => url.replace(HOST, '') || '/';
