import { describe, expect, it } from 'vitest';
import { sentWords, type Sent } from './useSends';

const sent = (ads: number, count: number, values: string[], absent = 0): Sent => ({
  node: 1,
  ads,
  lookedAt: 300,
  keys: { utm_source: { count, values, absent } },
});

describe('what the ads below an element send, in one cell', () => {
  it('is the one value, or how many', () => {
    expect(sentWords(sent(5, 1, ['northquay']), 5, 'utm_source').short).toBe('northquay');
    expect(sentWords(sent(5, 2, ['a', 'b']), 5, 'utm_source').short).toBe('2 values');
    expect(sentWords(sent(5, 0, [], 5), 5, 'utm_source').short).toBe('none');
    expect(sentWords(sent(5, 1, ['a'], 2), 5, 'utm_source').short).toBe('a or none');
  });

  it('says so where not all were looked at', () => {
    expect(sentWords(sent(300, 9, ['a', 'b']), 1200, 'utm_source')).toEqual({
      short: '≥ 9 values',
      full: 'a, b …: of the first 300 of 1200 ads.',
      mixed: true,
    });
  });
});
