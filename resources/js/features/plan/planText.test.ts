import { describe, expect, it } from 'vitest';
import { complete, openField, toParts, toText, firstPlan } from './planText';

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

describe('a plan to begin with', () => {
  const platform = (id: string, family: 'search' | 'social' | 'native', accounts: number) => ({
    id,
    title: id,
    family,
    about: '',
    types: [],
    own: false,
    accounts,
  });

  it('gives each connected platform its own source, and its family a medium where that differs', () => {
    const plan = firstPlan([
      platform('mossfeed', 'native', 1),
      platform('northquay-search', 'search', 2),
      platform('pellworth-search', 'search', 1),
      platform('reedrail', 'native', 0),
    ]);
    const [source, medium] = plan.parameters;
    expect(source!.parts).toEqual([{ text: 'northquay' }]);
    expect(source!.platforms).toEqual({
      'pellworth-search': { parts: [{ text: 'pellworth' }] },
      mossfeed: { parts: [{ text: 'mossfeed' }] },
    });
    expect(medium!.platforms).toEqual({ mossfeed: { parts: [{ text: 'native' }] } });
  });

  it('is a plan even where nothing is connected', () => {
    expect(firstPlan([]).parameters.map((p) => p.key)).toEqual([
      'utm_source',
      'utm_medium',
      'utm_campaign',
      'utm_term',
      'utm_content',
    ]);
    expect(firstPlan([platform('reedrail', 'native', 0)]).parameters[0]!.platforms).toBeUndefined();
  });
});
