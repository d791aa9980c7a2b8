import type { Schema } from '../api/client';

type Segment = Schema['Segment'];

/** A segment for tests. */
export const segment = (text: string, role: Segment['role'] = 'text', more: Partial<Segment> = {}): Segment => ({
  text,
  role,
  slot: null,
  level: null,
  node: null,
  name: null,
  token: null,
  field: null,
  ...more,
});
