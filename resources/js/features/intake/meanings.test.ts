import { describe, expect, it } from 'vitest';
import { about, choices, nameOf, openWords, wordsFor, type Column, type Words } from './meanings';

const words: Words = {
  switches: { clickId: ['on', 'off'] },
  types: ['text', 'listing'],
  levels: [
    { id: 'account', label: 'Account', depth: 0 },
    { id: 'campaign', label: 'Campaign', depth: 1 },
    { id: 'ad', label: 'Ad', depth: 2 },
  ],
};

const column = (more: Partial<Column>): Column => ({
  heading: 'Kind',
  means: 'campaign.type',
  values: null,
  certainty: 'open',
  why: '',
  asked: [],
  form: { pair: ';', is: '=', open: '', close: '' },
  ...more,
});

describe('what columns mean', () => {
  it('offers the row’s own level, those above, and no narrower one', () => {
    const all = choices(words, { level: 'campaign' }, column({})).flatMap((c) => c.items);
    expect(all.find((i) => i.value === 'id')?.label).toBe('Campaign: number');
    expect(all.some((i) => i.value === 'account.name')).toBe(true);
    expect(all.some((i) => i.value === 'ad.name')).toBe(false);
    expect(all.some((i) => i.value === 'setting.clickId')).toBe(true);
  });

  it('names a custom parameter by its heading, and keeps another name that is there', () => {
    const all = choices(words, { level: 'ad' }, column({ heading: 'Season of sale', means: 'custom.season' }));
    const texts = all.find((c) => c.group === 'texts')!.items.map((i) => i.value);
    expect(texts).toContain('custom.season_of_sale');
    expect(texts).toContain('custom.season');
    expect(nameOf(' – ')).toBe('x');
  });

  it('knows which words are still open', () => {
    const one = column({ asked: ['Film', 'text', 'Goods'], values: { Goods: 'listing' } });
    expect(openWords(words, one)).toEqual(['Film']);
    expect(wordsFor(words, 'slot.suffix')).toBeNull();
  });

  it('tints by what a column is about', () => {
    expect(['slot.suffix', 'group.id', 'custom.x', 'cost', 'ignore', 'standing'].map(about)).toEqual([
      'suffix',
      'id',
      'custom',
      'figure',
      'nothing',
      'fact',
    ]);
  });
});
