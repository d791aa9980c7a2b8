import { describe, expect, it } from 'vitest';
import { FIRST, forWhom, shown, withWordLine, wordsOf, rowsOfParts, type Pattern } from './names';

describe('naming patterns', () => {
  it('keep the meanings of words that are typed as a line', () => {
    const part = { name: 'market', words: [{ word: 'uk', means: 'the British isles' }, 'fr'] };
    const next = withWordLine(part, 'uk, de');
    expect(next.words).toEqual([{ word: 'uk', means: 'the British isles' }, 'de']);
    expect(wordsOf(next)).toEqual(['uk', 'de']);
    expect(withWordLine(part, '')).toEqual({ name: 'market' });
  });

  it('say how names look, and of which elements', () => {
    expect(shown({ ...FIRST, parts: [{ name: 'a' }, { name: 'b', optional: true }] })).toBe('a_(b)');
    expect(forWhom(FIRST)).toBe('campaign');
    expect(forWhom({ ...FIRST, for: { types: ['video'], families: ['search'] } })).toBe('type video · search');
    expect(forWhom({ ...FIRST, for: undefined })).toBe('all elements');
  });
});

describe('rows of parts out of a spreadsheet', () => {
  const pattern: Pattern = { ...FIRST, parts: [{ name: 'market' }, { name: 'aim' }] };

  it('are in the order of the pattern, or in that of a row that names the parts', () => {
    expect(rowsOfParts('uk\tbrand\n\nie\tsale\n', pattern)).toEqual([
      { market: 'uk', aim: 'brand' },
      { market: 'ie', aim: 'sale' },
    ]);
    expect(rowsOfParts('aim\tmarket\r\nbrand\tuk', pattern)).toEqual([{ aim: 'brand', market: 'uk' }]);
    expect(rowsOfParts('uk', pattern)).toEqual([{ market: 'uk', aim: '' }]);
    expect(rowsOfParts('', pattern)).toEqual([]);
  });
});
