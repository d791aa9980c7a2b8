import type { Schema } from '../api/client';
import { num } from './numbers';

const GIVES: Record<Schema['Advice']['give'], string> = {
  'as-is': 'as it is, not shaped',
  fallback: 'what the plan falls back on',
  optional: 'left out on this platform',
};

/** What a give in the plan would save, in words. */
export function adviceWords({
  give,
  writes,
  nodes,
  of,
}: Pick<Schema['Advice'], 'give' | 'writes' | 'nodes' | 'of'>): string {
  const n = (count: number, one: string) => `${num(count)} ${one}${count === 1 ? '' : 's'}`;
  return (
    `${GIVES[give]}: ${n(writes.then, 'write')} in place of ${num(writes.now)}, ` +
    `and ${n(nodes, 'element')} whose texts would not go stale when something is renamed` +
    (of === undefined ? '.' : `; counted on ${n(of, 'ad')} from all over the account.`)
  );
}
