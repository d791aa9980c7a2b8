import { expect, test } from 'vitest';
import { many, num } from './numbers';

test('thousands stand apart', () => {
  expect([0, 999, 1000, 1234567].map(num)).toEqual(['0', '999', '1,000', '1,234,567']);
});

test('one is one, and more are more', () => {
  expect([0, 1, 2400].map((n) => many(n, 'write'))).toEqual(['0 writes', '1 write', '2,400 writes']);
  expect(many(2, 'entry', 'entries')).toBe('2 entries');
});
