import { expect, test } from 'vitest';
import { arrivedOf, beside, wayOf } from './days';

test('days follow each other over months, years and changed clocks', () => {
  expect(beside('2026-10-25', 1)).toBe('2026-10-26');
  expect(beside('2026-03-01', -1)).toBe('2026-02-28');
  expect(beside('2026-12-31', 1)).toBe('2027-01-01');
});

test('what arrived is said beside what was clicked', () => {
  const arrived = [
    { values: { source: 'a' }, views: 1100 },
    { values: null, views: 3 },
  ];
  expect(arrivedOf({ arrived, clicks: null })).toBe('1,103 arrived');
  expect(arrivedOf({ arrived, clicks: 1200 })).toBe('1,103 arrived of 1,200 clicks');
  expect(arrivedOf({ arrived: [], clicks: 1 })).toBe('none arrived of 1 click');
  expect(arrivedOf({ arrived: [], clicks: 0 })).toBe('no click');
});

test('a value that did not arrive is seen', () => {
  expect(wayOf({ source: 'northquay', medium: '', campaign: 'ferry' })).toBe('northquay · – · ferry');
  expect(wayOf(null)).toBe('in other ways');
});
