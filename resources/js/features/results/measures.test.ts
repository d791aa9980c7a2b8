import { describe, expect, it } from 'vitest';
import { change, read } from './measures';

describe('measures', () => {
  it('read as what they are; money in the currency’s own units (ISO 4217), large sums without minor ones', () => {
    expect(read('sessions', 12345, 'EUR')).toBe('12,345');
    expect(read('conversions', 12.5, 'EUR')).toBe('12.5');
    expect(read('conversion', 0.0427, 'EUR')).toBe('4.3%');
    expect(read('revenueByCost', 20.276, 'EUR')).toBe('20.28');
    expect(read('cost', 9_999, 'EUR')).toBe('€99.99');
    expect(read('cost', 3_790_123, 'EUR')).toBe('€37,901');
    expect(read('cost', 990, 'JPY')).toBe('¥990'); // no minor units
    expect(read('cost', 990_500, 'KWD')).toMatch(/^KWD\s990\.500$/); // three places
    expect(read('costPerClick', null, 'EUR')).toBe('');
  });
  it('say how far they are from the days beside, and whether that is good', () => {
    expect(change('sessions', 110, 100)).toEqual({ text: '+10 %', good: true });
    expect(change('costPerConversion', 110, 100)).toEqual({ text: '+10 %', good: false });
    expect(change('cost', 95, 100)).toEqual({ text: '−5.0 %', good: null });
    expect(change('sessions', 100, 100)).toEqual({ text: '=', good: null });
    expect(change('sessions', 100, 0)).toBeNull();
    expect(change('conversion', null, 0.1)).toBeNull();
  });
});
