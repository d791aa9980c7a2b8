import { describe, expect, it } from 'vitest';
import { segment } from '../../components/segment.fixture';
import { costOf, countsSessions, isNew, makersOf, pageOf, sorted, type Trouble } from './words';

const trouble = (more: Partial<Trouble> = {}): Trouble => ({
  id: 1,
  kind: 'broken',
  account: { id: 1, name: 'Islands' },
  feed: null,
  about: null,
  where: 'Islands',
  what: 'utm_source does not arrive.',
  node: 7,
  ads: 3,
  clicks: 40,
  cost: 2000,
  firstAt: '2026-10-01T08:00:00Z',
  returnedAt: null,
  mendedAt: null,
  accepted: null,
  ...more,
});

describe('troubles', () => {
  const now = Date.parse('2026-10-05T08:00:00Z');
  it('are new for a day, and again when they come back; not once they are mended', () => {
    const began = '2026-10-01T08:00:00Z';
    expect(isNew(trouble(), began, now)).toBe(false);
    expect(isNew(trouble({ firstAt: '2026-10-04T09:00:00Z' }), began, now)).toBe(true);
    expect(isNew(trouble({ returnedAt: '2026-10-05T01:00:00Z' }), began, now)).toBe(true);
    const mended = { firstAt: '2026-10-05T01:00:00Z', mendedAt: '2026-10-05T02:00:00Z' };
    expect(isNew(trouble(mended), began, now)).toBe(false);
    const first = '2026-10-05T07:00:00Z';
    expect(isNew(trouble({ firstAt: '2026-10-05T07:10:00Z' }), first, now)).toBe(false); // nor to the end
    expect(isNew(trouble({ firstAt: first }), first, now)).toBe(false); // nobody had looked before
  });
  it('stand open, accepted until a day, or mended', () => {
    const accepted = { until: '2026-10-06', why: 'it is off season', by: 'Mara' };
    const all = [
      trouble({ id: 1 }),
      trouble({ id: 2, accepted }),
      trouble({ id: 3, mendedAt: '2026-10-04T08:00:00Z' }),
    ];
    const ids = (day: string) => Object.values(sorted(all, day)).map((some: Trouble[]) => some.map((t) => t.id));
    expect(ids('2026-10-05')).toEqual([[1], [2], [3]]);
    expect(ids('2026-10-06')).toEqual([[1, 2], [], [3]]);
  });
  it('that arrive say what makes them: the token that gives the value, or the text that is fixed', () => {
    const at = { slot: 'suffix', level: 'Campaign', name: 'Islands' };
    const url = [
      segment('https://a.example/', 'landing'),
      { ...segment('?utm_source=nq&utm_campaign=', 'suffix'), ...at },
      { ...segment('summer', 'token'), ...at, token: '{campaign.name}' },
    ];
    expect(makersOf(url, 'utm_campaign')).toEqual(['{campaign.name} in the suffix of Islands']);
    expect(makersOf(url, 'utm_source')).toEqual(['fixed text in the suffix of Islands']);
    expect(makersOf(url, 'utm_term')).toEqual([]);
    const unknown = trouble({ kind: 'arrives', account: null, node: null });
    expect(pageOf(unknown)).toBe('arrivals');
    expect([countsSessions(unknown), countsSessions(trouble())]).toEqual([true, false]);
  });
  it('are of an account, a list or links, and lead there', () => {
    const list = trouble({ kind: 'feed', account: null, feed: { id: 4, name: 'Tickets' }, what: 'key-twice link' });
    const link = trouble({ kind: 'link', account: null, node: null, what: '“Frost” has capital letters.' });
    expect([trouble(), list, link].map(pageOf)).toEqual(['accounts/1?at=7', 'feeds/4', 'links']);
  });
  it('cost what the clicks on their ads cost, each once', () => {
    expect(
      costOf([
        trouble({ cost: 2000 }),
        trouble({ kind: 'untracked', cost: 500 }),
        trouble({ kind: 'silent', cost: 1800 }),
        trouble({ kind: 'elsewhere', cost: 0 }),
        trouble({ kind: 'arrives', cost: 1500 }),
        trouble({ kind: 'arrives', cost: 1200 }),
      ]),
    ).toBe(2500);
  });
});
