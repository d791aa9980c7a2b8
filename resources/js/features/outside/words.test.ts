import { expect, test } from 'vitest';
import { effect, happened } from './words';

const one = { before: null, after: null, isAd: false, ads: 0 };

test('what happened is said where no text changed', () => {
  expect(happened({ ...one, kind: 'new', ads: 1200 })).toBe('is new, with 1,200 ads below it');
  expect(happened({ ...one, kind: 'new', isAd: true, ads: 1 })).toBe('is new');
  expect(happened({ ...one, kind: 'place', before: 'A', after: 'B' })).toBe('moved from “A” to “B”');
  expect(happened({ ...one, kind: 'standing', before: 'live', after: 'paused' })).toBe('live → paused');
  expect(happened({ ...one, kind: 'suffix', before: 'a', after: 'b' })).toBeNull();
});

test('what it does to the proof is said in numbers, and not before it is known', () => {
  expect(effect({ judged: false, breaks: 0, mends: 0 })).toBe('being proven');
  expect(effect({ judged: true, breaks: 1, mends: 0 })).toBe('breaks 1 ad');
  expect(effect({ judged: true, breaks: 0, mends: 2 })).toBe('mends 2 ads');
  expect(effect({ judged: true, breaks: 0, mends: 0 })).toBe('no matter');
});
