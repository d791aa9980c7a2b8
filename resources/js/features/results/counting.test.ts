import { describe, expect, it } from 'vitest';
import { readReferrers, writeReferrers } from './counting';

describe('what hosts are called', () => {
  const referrers = [
    { host: 'search.example', source: 'search.example', medium: 'organic' },
    { host: '*.findery.example', source: 'findery', medium: 'organic' },
  ];
  it('is written a line each, and read back the same', () => {
    const text = writeReferrers(referrers);
    expect(text).toBe('search.example organic\n*.findery.example findery organic');
    expect(readReferrers(text)).toEqual({ referrers });
  });
  it('pastes from a spreadsheet, blank lines passed over', () => {
    expect(readReferrers('\nsearch.example\tsearch\torganic\n\n')).toEqual({
      referrers: [{ host: 'search.example', source: 'search', medium: 'organic' }],
    });
  });
  it('names the line that is not understood', () => {
    expect(readReferrers('search.example organic\nalone.example')).toEqual({ wrong: 2 });
    expect(readReferrers('a b c d')).toEqual({ wrong: 1 });
  });
});
