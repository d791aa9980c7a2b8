import { describe, expect, it } from 'vitest';
import { aimOf, isOfTexts, lostShare, ofClaim, ofClicks, sizeOf, stepsOf, toldOf } from './steps';

const clicks = {
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
const stair = ofClicks(clicks);

describe('a stair', () => {
  it('goes down from all clicks to those that arrived as agreed, step by step', () => {
    expect(stepsOf('clicks', stair).map((s) => [s.step, s.from, s.to])).toEqual([
      ['broken', 90, 100],
      ['withheld', 84, 90],
      ['rest', 74, 84],
      ['raw', 72, 74],
      ['empty', 68, 72],
      ['elsewhere', 60, 68],
      ['arrived', 0, 60],
    ]);
  });
  it('goes down from what is claimed to what counts here', () => {
    const claim = ofClaim({
      claimed: 10,
      counted: 4,
      elsewhere: { Direct: 2 },
      outside: 1,
      repeated: 0,
      takenBack: 1,
      surplus: null,
      unseen: 2,
    });
    expect(stepsOf('conversions', claim).map((s) => [s.step, s.from, s.to])).toEqual([
      ['unseen', 8, 10],
      ['takenBack', 7, 8],
      ['outside', 6, 7],
      ['elsewhere', 4, 6],
      ['counted', 0, 4],
    ]);
    expect(lostShare('conversions', claim)).toBeCloseTo(0.6);
  });
  it('knows what nobody counts from what is nothing', () => {
    expect(sizeOf(stair, 'tracker')).toBeNull();
    expect(sizeOf(stair, 'untracked')).toBe(0);
    expect(sizeOf(stair, 'elsewhere')).toBe(8);
  });
  it('tells of every step that there is something of', () => {
    const clean = { ...clicks, withheld: null, empty: 0, raw: 0 };
    expect(toldOf('clicks', [ofClicks(clean)])).toEqual(['broken', 'untracked', 'rest', 'elsewhere', 'arrived']);
    expect(toldOf('clicks', [ofClicks(clean), stair])).toEqual([
      'broken',
      'untracked',
      'withheld',
      'rest',
      'raw',
      'empty',
      'elsewhere',
      'arrived',
    ]);
  });
  it('tells how much is lost', () => {
    expect(lostShare('clicks', stair)).toBeCloseTo(0.4);
    expect(lostShare('clicks', ofClicks({ ...clicks, clicks: 0, arrived: 0 }))).toBe(0);
    expect(lostShare('clicks', ofClicks({ ...clicks, arrived: 120 }))).toBe(0);
  });
});

describe('whom a change is for', () => {
  const platform = { by: 'platform', key: 'northquay-search', name: 'Northquay' } as const;
  const account = { by: 'account', key: '7', name: 'Islands' } as const;
  const campaign = { by: 'campaign', key: '71', name: 'Coves' } as const;

  it('is the picked line, of its account', () => {
    expect(aimOf([], { key: 'northquay-search', name: 'Northquay' })).toBeNull();
    expect(aimOf([platform], { key: '7', name: 'Islands' })).toEqual({ account: 7, nodes: [], name: 'Islands' });
    expect(aimOf([platform, account], { key: '71', name: 'Coves' })).toEqual({
      account: 7,
      nodes: [71],
      name: 'Coves',
    });
    expect(aimOf([platform, account, campaign], { key: '9', name: 'A' })?.nodes).toEqual([9]);
  });

  it('is where one is, if no line is picked that is of an ad', () => {
    expect(aimOf([platform, account, campaign], undefined)?.nodes).toEqual([71]);
    expect(aimOf([platform, account], { key: '', name: '' })).toEqual({ account: 7, nodes: [], name: 'Islands' });
  });

  it('is offered where texts are the cause', () => {
    expect(isOfTexts('broken')).toBe(true);
    expect(isOfTexts('withheld')).toBe(false);
  });
});
