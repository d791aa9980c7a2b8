import type { Schema } from '../../api/client';

/** What is followed down the stair. */
export type Of = 'clicks' | 'conversions' | 'revenue';

/** What becomes of a click, or of a claim, from the top of the stair to its foot. */
export type Step =
  | 'broken'
  | 'untracked'
  | 'tracker'
  | 'withheld'
  | 'rest'
  | 'raw'
  | 'empty'
  | 'unseen'
  | 'takenBack'
  | 'repeated'
  | 'outside'
  | 'elsewhere'
  | 'arrived'
  | 'counted';

export type By = 'platform' | 'account' | 'campaign' | 'ad';

/** Something that a line is of. */
export interface Place {
  key: string;
  name: string;
}

/** One of the levels that have been gone down: what stood there. */
export interface Down extends Place {
  by: By;
}

/** Steps whose cause is what ads send, so that a change can mend it. */
const OF_TEXTS: readonly Step[] = ['broken', 'untracked', 'raw', 'empty', 'elsewhere'];
export const isOfTexts = (step: Step) => OF_TEXTS.includes(step);

/**
 * Whose ads are to be brought in line: those of the picked line, else of where one has gone down to. Null: they are of
 * several accounts, or of none that is known.
 */
export function aimOf(down: readonly Down[], line: Place | undefined) {
  const account = down.find((d) => d.by === 'account');
  const within = down.at(-1);
  if (!account) {
    // below a platform lines are accounts
    return within?.by === 'platform' && line && Number(line.key) > 0
      ? { account: Number(line.key), nodes: [], name: line.name }
      : null;
  }
  const place = line && Number(line.key) > 0 ? line : within?.by === 'account' ? undefined : within;
  return place
    ? { account: Number(account.key), nodes: [Number(place.key)], name: place.name }
    : { account: Number(account.key), nodes: [], name: account.name };
}

const CLICKS: readonly [Step, string, string][] = [
  [
    'broken',
    'ends before the page',
    'the trail of these ads breaks off: a redirect, or a landing URL that leads nowhere',
  ],
  [
    'untracked',
    'can’t be told',
    'these ads send neither a click ID nor their number: what arrives can’t be known as theirs',
  ],
  ['tracker', 'lost at the tracker', 'a click tracker was sent more than landed by it'],
  ['withheld', 'no consent', 'people who did not agree to be counted'],
  ['rest', 'never seen', 'gone before the page loads, scripts blocked, or a cause that nobody knows'],
  ['raw', 'as raw tokens', 'they arrived, with a token where its value should be'],
  ['empty', 'without keys', 'they arrived, with neither source nor medium'],
  ['elsewhere', 'counted elsewhere', 'they arrived, in another channel than the plan wants'],
  ['arrived', 'as agreed', 'they arrived where the plan wants them'],
];

const CLAIMS: readonly [Step, string, string][] = [
  [
    'unseen',
    'never seen here',
    'nothing here followed one of these clicks: other devices, no consent, views counted too',
  ],
  ['takenBack', 'taken back', 'orders that were brought back or cancelled; platforms seldom take them off'],
  ['repeated', 'ordered twice', 'the same order was counted before'],
  ['outside', 'too long ago', 'the click was longer ago than is counted here'],
  ['elsewhere', 'counted elsewhere', 'something else counts for them here, by what the client has chosen'],
  ['counted', 'counts here too', 'they count for these ads here as well'],
];

/** All steps, from the top. */
export const STEPS: Record<Of, readonly [Step, string, string][]> = {
  clicks: CLICKS,
  conversions: CLAIMS,
  revenue: CLAIMS,
};

/** The steps that lines tell of even where there is nothing of them. */
const TOLD: Record<Of, readonly Step[]> = {
  clicks: ['broken', 'untracked', 'rest', 'elsewhere', 'arrived'],
  conversions: ['unseen', 'takenBack', 'repeated', 'outside', 'elsewhere', 'counted'],
  revenue: ['unseen', 'takenBack', 'repeated', 'outside', 'elsewhere', 'counted'],
};

const CLAIMED = {
  foot: 'count here too',
  lost: 'do not',
  none: 'Nothing is claimed of these days',
  surplus: 'count here than are claimed',
};

/** How the head of the page speaks of it. */
export const WORDS = {
  clicks: {
    whole: 'clicks',
    foot: 'arrived as agreed',
    lost: 'did not',
    none: 'No click is known of these days',
    surplus: 'arrived than were paid for',
  },
  conversions: { ...CLAIMED, whole: 'conversions claimed' },
  revenue: { ...CLAIMED, whole: 'claimed' },
};

/** One line of either kind: what is paid for or claimed, and what became of it. */
export interface Stair {
  key: string;
  name: string;
  /** at the top */
  whole: number;
  /** by step; null: nobody knows */
  sizes: Partial<Record<Step, number | null>>;
  elsewhere: Record<string, number>;
  /** more than at the top */
  surplus: number | null;
  marked: boolean;
  /** minor units; null: not told */
  cost: number | null;
}

const sum = (of: Record<string, number>): number => Object.values(of).reduce((all, n) => all + n, 0);

export function ofClicks(line: Schema['Stair'] & { key?: string; name?: string }): Stair {
  const { key = '', name = '', clicks, elsewhere, surplus, marked, cost } = line;
  const sizes = Object.fromEntries(CLICKS.map(([s]) => [s, line[s as keyof Schema['Stair']]]));
  return { key, name, whole: clicks, sizes: { ...sizes, elsewhere: sum(elsewhere) }, elsewhere, surplus, marked, cost };
}

export function ofClaim(claim: Schema['Claim'], key = '', name = ''): Stair {
  const { claimed, elsewhere, surplus } = claim;
  const sizes = Object.fromEntries(CLAIMS.map(([s]) => [s, claim[s as keyof Schema['Claim']]]));
  const all = { ...sizes, elsewhere: sum(elsewhere) };
  return { key, name, whole: claimed, sizes: all, elsewhere, surplus, marked: false, cost: null };
}

export const sizeOf = (stair: Stair, step: Step): number | null => stair.sizes[step] ?? null;

/** The steps that lines tell of where none is chosen: what they add up to is whole. */
export const toldOf = (of: Of, lines: readonly Stair[]): Step[] =>
  STEPS[of].map(([step]) => step).filter((s) => TOLD[of].includes(s) || lines.some((l) => (sizeOf(l, s) ?? 0) > 0));

export interface Part {
  step: Step;
  title: string;
  means: string;
  from: number;
  to: number;
}

/** Where each step begins and ends, counted from the foot; steps of nothing are left out. */
export function stepsOf(of: Of, stair: Stair): Part[] {
  let left = stair.whole;
  return STEPS[of].flatMap(([step, title, means]) => {
    const size = sizeOf(stair, step) ?? 0;
    if (size === 0) return [];
    const to = left;
    left -= size;
    return [{ step, title, means, from: Math.max(0, left), to }];
  });
}

/** What is at the foot. */
export const footOf = (of: Of, stair: Stair): number => sizeOf(stair, of === 'clicks' ? 'arrived' : 'counted') ?? 0;

/** How much is lost on the way: all that is not at the foot. */
export const lostShare = (of: Of, stair: Stair): number =>
  stair.whole === 0 ? 0 : Math.max(0, 1 - footOf(of, stair) / stair.whole);
