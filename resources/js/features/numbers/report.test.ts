import { expect, test } from 'vitest';
import { asColumn, brought, shownOf, type Line, type Look } from './report';

const line = (cell: string, name: string | null, how: Line['how'][number] = 'known', of: Line[] = []): Line => ({
  cells: [cell, '1'],
  named: [name === null ? null : { node: 1, account: 1, isAd: true, number: 'N-1', name, path: 'A' }],
  how: [how],
  notes: [null],
  of,
});

const LOOK: Look = {
  tables: ['report'],
  form: { kind: 'csv', delimiter: ',', encoding: 'UTF-8', note: null },
  headings: ['Ad', 'Clicks'],
  columns: [{ at: 0, by: 'number', of: null, known: 2, several: 1, unknown: 1 }],
  amounts: [1],
  summed: [1],
  rows: 4,
  isMore: false,
  lines: [
    line('1', 'Ferry\tblue'),
    line('2', null, 'several'),
    line('3', null, 'unknown'),
    line('Summer', 'Summer', 'known', [line('Sommer', 'Summer'), line('Summer', 'Summer')]),
  ],
};
const cells = (only: Parameters<typeof shownOf>[1], open: number[] = []) =>
  shownOf(LOOK, only, new Set(open)).map((shown) => [shown.line.cells[0], shown.beneath]);

test('lines that stay open are told apart by why', () => {
  expect(cells('several')).toEqual([['2', false]]);
  expect(cells('unknown')).toEqual([['3', false]]);
});

test('a line of several is opened', () => {
  expect(cells('all', [3]).slice(3)).toEqual([
    ['Summer', false],
    ['Sommer', true],
    ['Summer', true],
  ]);
});

test('names are copied as one column, a cell a line', () => {
  expect(asColumn(LOOK, 0)).toBe('Ferry blue\n\n\nSummer');
});

test('a report is sent packed', async () => {
  const text = 'Ad,Clicks\n'.repeat(2000);
  const { content } = await brought('r.csv', new Blob([text]));
  expect(content.length).toBeLessThan(text.length / 20);
  expect(atob(content).slice(0, 2)).toBe('\x1f\x8b'); // RFC 1952 §2.3.1: how a gzip file begins
});
