import { describe, expect, it } from 'vitest';
import { complete, openField, toParts, toText } from './planText';

describe('parts in one line', () => {
  it.each([
    ['cpc', [{ text: 'cpc' }]],
    ['‹ad.id›', [{ field: 'ad.id' }]],
    ['nq-‹campaign.name›_x', [{ text: 'nq-' }, { field: 'campaign.name' }, { text: '_x' }]],
    ['‹a.b›‹c.d›', [{ field: 'a.b' }, { field: 'c.d' }]],
    ['a ‹ b', [{ text: 'a ‹ b' }]],
    ['', [{ text: '' }]],
  ])('%s is read and written back', (text, parts) => {
    expect(toParts(text)).toEqual(parts);
    expect(toText(toParts(text))).toBe(text);
  });

  it('takes plain angles too', () => {
    expect(toText(toParts('x<ad.id>'))).toBe('x‹ad.id›');
  });

  it('knows the field that is being typed', () => {
    expect(openField('nq-<camp')).toBe('camp');
    expect(openField('nq-<')).toBe('');
    expect(openField('‹ad.id› x')).toBeNull();
    expect(complete('nq-<camp', 'campaign.name')).toBe('nq-‹campaign.name›');
  });
});
