import { describe, expect, it } from 'vitest';
import { isInUse, pasted, pastedOver, withWords, type Words } from './words';

describe('words', () => {
  it('come in from a spreadsheet, and get the meanings that they lacked', () => {
    expect(pasted('cpc\tpaid by the click\r\n\nemail\t\n', [{ word: 'cpc' }, { word: 'qr' }])).toEqual([
      { word: 'cpc', means: 'paid by the click' },
      { word: 'qr' },
      { word: 'email' },
    ]);
  });

  it('say what is new and what would mean something else before they are taken over', () => {
    const words = [{ word: 'cpc', means: 'by the click' }, { word: 'qr' }];
    expect(pastedOver('cpc\tpaid\nqr\ton posters\nemail', words)).toEqual({
      added: ['email'],
      other: ['cpc: “by the click” becomes “paid”'],
    });
  });

  it('of one key change alone', () => {
    const words: Words = { format: 'vestigon.words/1', keys: { a: [{ word: 'x' }] } };
    expect(withWords(words, 'b', [{ word: 'y' }]).keys).toEqual({ a: [{ word: 'x' }], b: [{ word: 'y' }] });
    expect(words.keys).toEqual({ a: [{ word: 'x' }] });
    expect(isInUse({ word: 'x', retired: { since: '2026-01-01' } })).toBe(false);
  });
});
