import { describe, expect, it } from 'vitest';
import { FIRST, forWhom, shown, withWordLine, wordsOf } from './names';

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
