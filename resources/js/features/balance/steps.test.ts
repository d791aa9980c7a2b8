import { describe, expect, it } from 'vitest';
import { lostShare, sizeOf, stepsOf, type Stair } from './steps';

const stair: Stair = {
  clicks: 100,
  arrived: 60,
  elsewhere: { 'E-mail': 5, Direct: 3 },
  empty: 4,
  raw: 2,
  repeats: 9,
  surplus: null,
  broken: 10,
  untracked: 0,
  tracker: null,
  withheld: 6,
  rest: 10,
  marked: false,
  cost: 5000,
};

describe('a stair', () => {
  it('goes down from all clicks to those that arrived as agreed, step by step', () => {
    expect(stepsOf(stair).map((s) => [s.step, s.from, s.to])).toEqual([
      ['broken', 90, 100],
      ['withheld', 84, 90],
      ['rest', 74, 84],
      ['raw', 72, 74],
      ['empty', 68, 72],
      ['elsewhere', 60, 68],
      ['arrived', 0, 60],
    ]);
  });
  it('knows what nobody counts from what is nothing', () => {
    expect(sizeOf(stair, 'tracker')).toBeNull();
    expect(sizeOf(stair, 'untracked')).toBe(0);
    expect(sizeOf(stair, 'elsewhere')).toBe(8);
  });
  it('tells how much is lost', () => {
    expect(lostShare(stair)).toBeCloseTo(0.4);
    expect(lostShare({ ...stair, clicks: 0, arrived: 0 })).toBe(0);
    expect(lostShare({ ...stair, arrived: 120 })).toBe(0);
  });
});
