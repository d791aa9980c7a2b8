import type { Schema } from '../../api/client';

export type Stair = Schema['Stair'];

/** What becomes of a click, from the top of the stair to its foot. */
export type Step = 'broken' | 'untracked' | 'tracker' | 'withheld' | 'rest' | 'raw' | 'empty' | 'elsewhere' | 'arrived';

export const STEPS: readonly [Step, string, string][] = [
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

export function sizeOf(stair: Stair, step: Step): number | null {
  if (step === 'elsewhere') return Object.values(stair.elsewhere).reduce((sum, n) => sum + n, 0);
  return stair[step];
}

/** Where each step begins and ends, counted in clicks from the foot; steps of nothing are left out. */
export function stepsOf(stair: Stair): { step: Step; title: string; means: string; from: number; to: number }[] {
  let left = stair.clicks;
  return STEPS.flatMap(([step, title, means]) => {
    const size = sizeOf(stair, step) ?? 0;
    if (size === 0) return [];
    const to = left;
    left -= size;
    return [{ step, title, means, from: Math.max(0, left), to }];
  });
}

/** How much of the clicks is lost on the way: all that did not arrive as agreed. */
export const lostShare = (stair: Stair): number =>
  stair.clicks === 0 ? 0 : Math.max(0, 1 - stair.arrived / stair.clicks);
