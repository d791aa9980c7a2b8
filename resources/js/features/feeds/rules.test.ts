import { expect, test } from 'vitest';
import {
  comparedWith,
  comparisonOf,
  FIRST,
  isWhole,
  keyOfStep,
  plainIn,
  partsOf,
  stepOf,
  testOf,
  typedParts,
  typedValue,
} from './rules';

test('what the plan says in plain text is offered, on whatever platform', () => {
  const plan = {
    format: 'vestigon.plan/1',
    id: 'p',
    title: 'P',
    clickId: 'optional' as const,
    parameters: [
      {
        key: 'utm_source',
        parts: [{ text: 'northquay' }],
        platforms: { reedrail: { parts: [{ text: 'reedrail' }] }, mossfeed: { parts: [{ field: 'ad.name' }] } },
      },
    ],
  };
  expect(plainIn(plan, 'utm_source')).toEqual(['northquay', 'reedrail']);
  expect([plainIn(plan, 'utm_term'), plainIn(null, 'utm_source')]).toEqual([[], []]);
});

test('conditions are typed as they are kept', () => {
  for (const [how, typed] of [
    ['in', 'car | van'],
    ['has', 'x'],
    ['matches', '^a|b$'],
    ['over', '100'],
    ['empty', ''],
    ['filled', ''],
  ] as const) {
    const kept = testOf('kind', how, typed);
    expect([comparisonOf(kept), comparedWith(kept)]).toEqual([how, typed]);
  }
  expect(testOf('price', 'over', '1,200.5')).toEqual({ column: 'price', over: 1200.5 });
  expect(testOf('kind', 'in', '')).toEqual({ column: 'kind', in: [''] });
  expect(testOf('kind', 'has', 'x', true)).toEqual({ column: 'kind', has: 'x', exact: true });
});

test('values are typed with columns between angles', () => {
  const parts = [{ text: 'a-' }, { column: 'island', shape: 'slug' as const }, { text: '-' }, { column: 'g:id' }];
  expect(typedParts(parts)).toBe('a-‹island slug›-‹g:id›');
  expect(partsOf(typedParts(parts))).toEqual(parts);
  expect(partsOf('')).toEqual([]);
});

test('steps are typed as they are kept, and half of one is not tried', () => {
  expect(stepOf('take', 'ref', 'x')).toEqual({ take: 'ref' });
  expect(typedValue(stepOf('rename', 'a', 'b'))).toBe('b');
  expect(keyOfStep(stepOf('add', 'k', 'v'))).toBe('k');
  expect(isWhole(FIRST)).toBe(true);
  expect(isWhole({ title: '', do: [{ set: '' }] })).toBe(false);
  expect(isWhole({ title: '', do: [{ rename: 'a', to: '' }] })).toBe(false);
  expect(isWhole({ title: '', when: [{ column: 'a', has: '' }], do: [] })).toBe(false);
});
