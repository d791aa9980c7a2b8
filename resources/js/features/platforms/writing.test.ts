import { expect, test } from 'vitest';
import type { Document } from './document';
import { drawable, merged, newId, toggled, withoutLevel, written } from './writing';

const TEXT = `format: vestigon.dialect/1
id: ninth # ours
levels:
  - { id: account, label: Account, role: account }
  - { id: ad, label: Ad, role: ad }
slots:
  - { kind: landing, levels: [ad], inherit: nearest }
tokens: []
assembly: { suffixJoins: click, mendsQuestionMark: false, mendsFragment: false, space: '+' }
`;

test('one place changes, and remarks and all else stay', () => {
  const text = written(TEXT, ['assembly', 'mendsQuestionMark'], true);
  expect(text).toContain('id: ninth # ours');
  expect(drawable(text)?.assembly.mendsQuestionMark).toBe(true);
  expect(drawable(written(text, ['clickId'], { parameter: 'x' }))?.clickId?.parameter).toBe('x');
  expect(written(written(TEXT, ['about'], 'a'), ['about'], undefined)).not.toContain('about');
});

test('JSON stays JSON', () => {
  const json = JSON.stringify({ levels: [], slots: [], tokens: [], assembly: { space: '+' } });
  expect(JSON.parse(written(json, ['assembly', 'space'], '%20'))).toMatchObject({ assembly: { space: '%20' } });
});

test('what can’t be drawn is no document', () => {
  expect(drawable('')).toBeNull();
  expect(drawable('a: [')).toBeNull();
  expect(drawable('levels: x')).toBeNull();
});

test('a slot is put on a level in the order of levels, and goes with its last one', () => {
  const d = drawable(TEXT) as Document;
  expect(toggled(d, 'landing', 'account')).toEqual([
    { kind: 'landing', levels: ['account', 'ad'], inherit: 'nearest' },
  ]);
  expect(toggled(d, 'landing', 'ad')).toEqual([]);
  expect(toggled(d, 'suffix', 'ad')).toHaveLength(2);
  expect(withoutLevel(d, 'ad')).toEqual({ levels: [d.levels[0]], slots: [] });
});

test('a level gets an id of its own', () => {
  expect(newId('Letter box', [])).toBe('letter-box');
  expect(newId('Letter box', ['letter-box'])).toBe('letter-box-2');
  expect(newId('日本', [])).toBe('level');
});

test('tokens of a name that is there are replaced, others come last', () => {
  const one = { name: 'a', kind: 'value' as const, field: 'ad.id', encode: 2 };
  expect(
    merged(
      [one],
      [
        { name: 'a', kind: 'value', field: 'ad.name' },
        { name: 'b', kind: 'value' },
      ],
    ),
  ).toEqual([
    { name: 'a', kind: 'value', field: 'ad.name', encode: 2 },
    { name: 'b', kind: 'value' },
  ]);
});
