import { expect, test } from 'vitest';
import { asked, asCells, EMPTY, heading, isEmpty, linksOf, pasteInto, withCell } from './bench';

const row = { ...EMPTY, landing: 'https://a.example/', pairs: { utm_source: 'one | two', utm_medium: 'email' } };

test('a cell with several words makes a link each', () => {
  expect(linksOf({ ...row, pairs: { ...row.pairs, utm_content: 'a|b |' } }).map((l) => Object.values(l.pairs))).toEqual(
    [
      ['one', 'email', 'a'],
      ['one', 'email', 'b'],
      ['two', 'email', 'a'],
      ['two', 'email', 'b'],
    ],
  );
  expect(linksOf(EMPTY)).toEqual([EMPTY]);
});

test('cells of a spreadsheet go in to the right and below, and make rows that are not there yet', () => {
  const rows = pasteInto(
    [row, EMPTY],
    ['title', 'landing', 'utm_source'],
    { row: 1, column: 'landing' },
    'x\ty\tz\r\nv\tw\r\n',
  );
  expect(rows).toHaveLength(3);
  expect(rows[0]).toBe(row);
  expect(rows[1]).toEqual({ ...EMPTY, landing: 'x', pairs: { utm_source: 'y' } });
  expect(rows[2]).toEqual({ ...EMPTY, landing: 'v', pairs: { utm_source: 'w' } });
});

test('rows and links are told as they are meant', () => {
  expect(isEmpty(withCell(EMPTY, 'utm_source', ' '))).toBe(true);
  expect(isEmpty(row)).toBe(false);
  expect(asked(EMPTY, false, '')).toEqual({ landing: '', pairs: {}, title: '', short: false });
  expect(asked({ ...EMPTY, code: 'pier' }, false, 'go.a.example')).toMatchObject({
    short: true,
    code: 'pier',
    host: 'go.a.example',
  });
  expect(asCells([{ title: 'a', short: null, url: 'u' }])).toBe('a\t\tu');
  expect(heading('utm_source')).toBe('source');
});
