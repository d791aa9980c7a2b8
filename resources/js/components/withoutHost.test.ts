import { expect, test } from 'vitest';
import { pathOf } from './withoutHost';

test('a page of one site is told by its path', () => {
  expect(pathOf('https://a.example/b?c#d')).toBe('/b?c#d');
  expect(pathOf('https://a.example')).toBe('/');
  expect(pathOf('HTTP://a.example?x')).toBe('?x');
  expect(pathOf('nothing there')).toBe('nothing there');
});
