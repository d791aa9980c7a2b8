import { expect, test } from 'vitest';
import { offersFor, withOffer } from './offers';

const offer = (written: string, gives: string) => ({ written, gives, kind: 'value' as const });
const braces = [offer('{term}', 'keyword.text'), offer('{device}', 'device'), offer('{ad.id}', 'ad.id')];
const tildes = [offer('~site~', 'publisher.name'), offer('~item~', 'ad.id')];
const names = (text: string, open = '{', close = '}', offers = braces) =>
  offersFor(text, text.length, open, close, offers)?.list.map((o) => o.written);

test('tokens are offered inside an open mark only', () => {
  expect(names('utm_term={')).toEqual(['{term}', '{device}', '{ad.id}']);
  expect(names('utm_term={te')).toEqual(['{term}']);
  expect(names('utm_term={keyw')).toEqual(['{term}']);
  expect(names('utm_term={term}')).toBeUndefined();
  expect(names('utm_term={term&x=')).toBeUndefined();
  expect(names('utm_term=')).toBeUndefined();
  expect(names('{')).toHaveLength(3);
});

test('where both marks are the same, every second one opens', () => {
  expect(names('a=~si', '~', '~', tildes)).toEqual(['~site~']);
  expect(names('a=~site~', '~', '~', tildes)).toBeUndefined();
  expect(names('a=~site~&b=~', '~', '~', tildes)).toHaveLength(2);
});

test('an offer takes the place of what was typed of it', () => {
  expect(withOffer('a={te&b=1', 2, 5, '{term}')).toEqual({ text: 'a={term}&b=1', caret: 8 });
});
