import { expect, test } from 'vitest';
import { clock, moment } from './moments';

test('a moment is told by 24 hours, and with its year where that is not this one', () => {
  const now = new Date(2026, 10, 26);
  expect(moment(new Date(2026, 10, 26, 14, 5).toISOString(), now)).toBe('26 Nov, 14:05');
  expect(moment(new Date(2025, 0, 3, 0, 7).toISOString(), now)).toBe('3 Jan 2025, 00:07');
  expect(clock(new Date(2026, 10, 26, 21, 5, 9).toISOString())).toBe('21:05:09');
});
