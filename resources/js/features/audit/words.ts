import type { Schema } from '../../api/client';
import { split } from '../../components/stretches';

export type Trouble = Schema['Trouble'];

/** The mark of each kind of trouble: told apart without colour. */
export const MARKS: Record<Trouble['kind'], string> = {
  broken: '╱',
  untracked: '○',
  elsewhere: '↷',
  silent: '…',
  outside: '⇤',
  stale: '◌',
  names: '¶',
  arrives: '≠',
  feed: '≡',
  link: '∞',
};

const DAY = 86_400_000;

/** It takes so long until all has been looked at for the first time. */
const FIRST_LOOK = 20 * 60_000;

/** Met for the first time, or again, since yesterday; what was met when it was looked for first is not new. */
export const isNew = (t: Trouble, beganAt: string | null, now = Date.now()): boolean =>
  t.mendedAt === null &&
  now - Date.parse(t.returnedAt ?? t.firstAt) < DAY &&
  (t.returnedAt !== null || Date.parse(t.firstAt) - Date.parse(beganAt ?? t.firstAt) > FIRST_LOOK);

/** Is what is counted beside it sessions, and not clicks? */
export const countsSessions = (t: Trouble): boolean =>
  ['elsewhere', 'link', 'arrives'].includes(t.kind) && t.about?.code !== 'stopped';

/** What makes a key's value in a URL: tokens, or the fixed text; each with where it stands. */
export function makersOf(segments: readonly Schema['Segment'][], key: string): string[] {
  const making = split(segments, [key]).filter((s) => s.trouble);
  const filled = making.filter((s) => s.segment.token !== null);
  const said = (filled.length > 0 ? filled : making).map(({ segment }) => {
    const what = segment.token ?? (segment.role === 'auto-tag' ? 'a tag that the platform adds itself' : 'fixed text');
    return segment.slot ? `${what} in the ${segment.slot} of ${segment.name ?? segment.level}` : what;
  });
  return [...new Set(said)];
}

/** The page where it can be looked at, within the client. */
export const pageOf = (t: Trouble): string =>
  t.account
    ? `accounts/${t.account.id}${t.node ? `?at=${t.node}` : ''}`
    : t.feed
      ? `feeds/${t.feed.id}`
      : t.kind === 'arrives'
        ? 'arrivals'
        : 'links';

/** Somebody has said why it is to stay, and the day until which has not come. */
export const isAccepted = (t: Trouble, today: string): boolean => t.accepted !== null && t.accepted.until > today;

export interface Sorted {
  open: Trouble[];
  accepted: Trouble[];
  mended: Trouble[];
}

export function sorted(items: readonly Trouble[], today: string): Sorted {
  const mended = items.filter((t) => t.mendedAt !== null);
  const there = items.filter((t) => t.mendedAt === null);
  return {
    open: there.filter((t) => !isAccepted(t, today)),
    accepted: there.filter((t) => isAccepted(t, today)),
    mended,
  };
}

/** The cost of clicks on ads that are wrong in some way: of the kinds that share ads, the larger. */
export function costOf(open: readonly Trouble[]): number {
  const of = (...kinds: Trouble['kind'][]) =>
    open.filter((t) => kinds.includes(t.kind)).reduce((sum, t) => sum + t.cost, 0);
  const arrives = open.filter((t) => t.kind === 'arrives').map((t) => t.cost);
  return Math.max(of('broken', 'untracked'), of('silent'), ...arrives);
}
