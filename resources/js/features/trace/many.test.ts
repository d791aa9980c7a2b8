import { expect, test } from 'vitest';
import { countsOf, manyIn, type Read } from './many';

test('lines are many URLs if at least two of them are; other lines are told of, not dropped', () => {
  expect(manyIn('https://a.example/\n\n  https://b.example/?x=1 \r\nferry\n')).toEqual([
    'https://a.example/',
    'https://b.example/?x=1',
    'ferry',
  ]);
  expect(manyIn('https://a.example/?utm_source=nq')).toBeNull();
  expect(manyIn('{landing}?a=1\nhttps://a.example/')).toBeNull();
});

test('what can be said of lines is counted', () => {
  const read = (more: Partial<Read>): Read => ({ url: 'u', isUrl: true, ways: 0, sender: null, link: null, ...more });
  const link = { id: 1, title: 'Letter', short: null };
  const items = [read({ ways: 1 }), read({ ways: 3 }), read({ link }), read({}), read({}), read({ isUrl: false })];
  expect(countsOf(items)).toEqual([
    ['one', 1],
    ['several', 1],
    ['link', 1],
    ['none', 2],
    ['not-url', 1],
  ]);
});
