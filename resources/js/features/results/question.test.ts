import { describe, expect, it } from 'vitest';
import {
  bodyOf,
  daysIn,
  daysOf,
  dimensionsOf,
  FIRST,
  nothingOf,
  readDays,
  readQuestion,
  stepOf,
  titleOf,
  today,
  type Question,
} from './question';

describe('what lines are told by', () => {
  it('is a part of names too, where a pattern has one', () => {
    const groups = (fields: string[], keys: string[]) => new Map(dimensionsOf(fields, keys));
    expect([...groups(['ad.id', 'account.name'], []).keys()]).toEqual([
      'what arrived',
      'what was bought',
      'the ad behind it',
      'time',
    ]);
    const parts = groups(['ad.id', 'campaign.part.market', 'folder.part.x'], []).get('a part of the ad’s names');
    expect(parts).toEqual([['campaign.part.market', 'campaign’s market']]);
    expect(titleOf('ad-campaign')).toBe('campaign on the platform');
    expect(nothingOf('ad.part.format')).toBe('no ad known, or no such part');
  });
  it('is each key of the plan that has no place of its own, as it is written', () => {
    const groups = dimensionsOf([], ['vg_ad', 'key.odd']);
    expect(groups.find(([group]) => group === 'another key of the plan')?.[1]).toEqual([
      ['key.vg_ad', 'vg_ad'],
      ['key.key.odd', 'key.odd'],
    ]);
    expect(groups.at(-1)?.[0]).toBe('time');
    expect(nothingOf('key.vg_ad')).toBe('none');
  });
});

describe('days of a question', () => {
  it('are whole ones: today is not over', () => {
    expect(daysOf({ last: 7 }, '2026-11-27')).toEqual({ from: '2026-11-20', to: '2026-11-26' });
    expect(daysOf({ last: 1 }, '2026-03-01')).toEqual({ from: '2026-02-28', to: '2026-02-28' });
  });
  it('are those of a month, this one as far as it has come', () => {
    expect(daysOf({ month: -1 }, '2026-03-15')).toEqual({ from: '2026-02-01', to: '2026-02-28' });
    expect(daysOf({ month: 0 }, '2026-03-15')).toEqual({ from: '2026-03-01', to: '2026-03-15' });
    expect(daysOf({ month: -1 }, '2026-01-31')).toEqual({ from: '2025-12-01', to: '2025-12-31' });
  });
  it('are the client’s, wherever the person is', () => {
    const night = new Date('2026-10-04T23:30:00Z');
    expect(today('Europe/Oslo', night)).toBe('2026-10-05');
    expect(today('America/Lima', night)).toBe('2026-10-04');
  });
  it('are counted with both ends, and read with the year once', () => {
    expect(daysIn({ from: '2026-03-01', to: '2026-03-31' })).toBe(31);
    expect(readDays({ from: '2026-10-30', to: '2026-11-26' })).toBe('30 Oct – 26 Nov 2026');
    expect(readDays({ from: '2025-12-30', to: '2026-01-02' })).toBe('30 Dec 2025 – 2 Jan 2026');
  });
  it('are told by steps that can be told apart', () => {
    expect(stepOf({ from: '2026-11-01', to: '2026-11-28' })).toBe('day');
    expect(stepOf({ from: '2026-08-29', to: '2026-11-26' })).toBe('week');
    expect(stepOf({ from: '2024-01-01', to: '2026-01-01' })).toBe('month');
  });
});

describe('a question', () => {
  const days = { from: '2026-11-01', to: '2026-11-28' };
  it('is read back from an address; what can’t be read is the first one', () => {
    const asked: Question = { ...FIRST, measure: 'revenue', by: ['ad'] };
    expect(readQuestion(JSON.stringify(asked))).toEqual(asked);
    expect(readQuestion('{')).toEqual(FIRST);
    expect(readQuestion(null)).toEqual(FIRST);
  });
  it('is asked below a line by what stands next, only of that line', () => {
    expect(bodyOf(FIRST, days, ['Paid search', 'Orrin'])).toMatchObject({
      by: ['ad'],
      where: [
        { by: 'channel', is: ['Paid search'] },
        { by: 'campaign', is: ['Orrin'] },
      ],
    });
  });
});
