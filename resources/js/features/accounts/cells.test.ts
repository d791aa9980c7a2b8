import { expect, it } from 'vitest';
import { segment } from '../../components/segment.fixture';
import { asCells } from './cells';
import type { Row } from './useTree';

const ROW = {
  name: '=HYPERLINK("x")',
  externalId: '7031',
  state: 'broken',
  isAd: true,
  ribbon: [segment('https://v.example/?a=1')],
  says: [],
  arrival: { a: '+1\t2' },
} as unknown as Row;

it('copies a row as cells that a spreadsheet takes for text, not for formulas', () => {
  expect(asCells(ROW, ['a', 'b']).split('\t')).toEqual([
    '\'=HYPERLINK("x")',
    '7031',
    'broken',
    'https://v.example/?a=1',
    "'+1 2",
    '',
  ]);
});
