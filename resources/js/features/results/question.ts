import type { Schema } from '../../api/client';

export type Dimension = Schema['ToldBy'];
type Order = NonNullable<Schema['ResultsBody']['order']>;
export type Measure = Exclude<Order, 'name'>;
export type Only = NonNullable<Schema['ResultsBody']['where']>[number];

/** Days that a question is about: so many whole ones, a month (0: this one), or from one to another. */
export type Period = { last: number } | { month: number } | { from: string; to: string };

export interface Question {
  measure: Measure;
  by: Dimension[];
  period: Period;
  beside: 'before' | 'year' | null;
  where: Only[];
  /** what stands in the table; those of the house if nobody has chosen */
  columns?: Measure[];
  /** read as it was meant, by the names of when; else as it arrived */
  meant?: 'today' | 'then';
  /** what it is read by, once it has been */
  reading?: number;
}

const DIMENSIONS: readonly (readonly [string, readonly (readonly [Dimension, string])[]])[] = [
  [
    'what arrived',
    [
      ['channel', 'channel'],
      ['source', 'source'],
      ['medium', 'medium'],
      ['campaign', 'campaign'],
      ['content', 'content'],
      ['term', 'term'],
      ['landing', 'landing page'],
      ['device', 'device'],
      ['visitor', 'new or returning'],
      ['link', 'link that people placed'],
      ['site', 'site'],
    ],
  ],
  ['what was bought', [['item', 'item bought']]],
  [
    'the ad behind it',
    [
      ['platform', 'platform'],
      ['account', 'account'],
      ['ad-campaign', 'campaign on the platform'],
      ['ad-group', 'group'],
      ['ad', 'ad'],
      ['keyword', 'keyword'],
      ['placement', 'placement'],
    ],
  ],
  [
    'time',
    [
      ['day', 'day'],
      ['week', 'week'],
      ['month', 'month'],
    ],
  ],
];

const TITLES = new Map<string, string>(DIMENSIONS.flatMap(([, all]) => all));
const PART = /^(campaign|group|ad)\.part\.(.+)$/;
const KEY = 'key.';

/** Those of the house, the parts of names among the fields of the client's plan, and the plan's other keys. */
export function dimensionsOf(fields: readonly string[], otherKeys: readonly string[]): typeof DIMENSIONS {
  const own = [
    ['another key of the plan', otherKeys.map((key) => `${KEY}${key}`)],
    ['a part of the ad’s names', fields.filter((field) => PART.test(field))],
  ] as const;
  return [
    ...DIMENSIONS.slice(0, -1),
    ...own
      .filter(([, all]) => all.length > 0)
      .map(([group, all]) => [group, all.map((one) => [one, titleOf(one)] as const)] as const),
    ...DIMENSIONS.slice(-1),
  ];
}

export function titleOf(dimension: Dimension): string {
  if (dimension.startsWith(KEY)) return dimension.slice(KEY.length);
  const [, of, part] = PART.exec(dimension) ?? [];
  return part === undefined ? (TITLES.get(dimension) ?? dimension) : `${of}’s ${part}`;
}

export const isTime = (dimension: Dimension | undefined): boolean =>
  dimension === 'day' || dimension === 'week' || dimension === 'month';

export const isOfItems = ({ by, where }: Question): boolean =>
  by.includes('item') || where.some((only) => only.by === 'item');

/** What stands where a line has no value, by what the line is told by. */
export const nothingOf = (dimension: Dimension): string =>
  PART.test(dimension)
    ? 'no ad known, or no such part'
    : ({
        platform: 'no click ID, no ad known',
        account: 'no ad known',
        'ad-campaign': 'no ad known',
        'ad-group': 'no ad known, or no group',
        ad: 'no ad known',
        keyword: 'no keyword known',
        placement: 'no placement known',
        visitor: 'nobody can say',
        item: 'of no item',
        channel: 'no session known',
      }[dimension] ?? 'none');

export const FIRST: Question = {
  measure: 'sessions',
  by: ['channel', 'campaign', 'ad'],
  period: { last: 28 },
  beside: 'before',
  where: [],
};

/** A question as it stands in an address, or is kept; what can't be read is as it is at first. */
export function readQuestion(text: string | null): Question {
  try {
    const read: unknown = JSON.parse(text ?? '');
    return typeof read === 'object' && read !== null ? { ...FIRST, ...(read as Partial<Question>) } : FIRST;
  } catch {
    return FIRST;
  }
}

const DAY = 86_400_000;
const iso = (at: Date): string => at.toISOString().slice(0, 10);
const shifted = (day: string, by: number): string => iso(new Date(Date.parse(`${day}T00:00:00Z`) + by * DAY));

/** The day that it is in a time zone. */
export const today = (timeZone: string, now = new Date()): string =>
  new Intl.DateTimeFormat('en-CA', { timeZone, year: 'numeric', month: '2-digit', day: '2-digit' }).format(now);

/** First and last day of a period. Whole days alone: today's is not over. */
export function daysOf(period: Period, day: string): { from: string; to: string } {
  if ('from' in period) return period;
  if ('last' in period) return { from: shifted(day, -period.last), to: shifted(day, -1) };
  const [year = 0, month = 1] = day.split('-').map(Number);
  const first = iso(new Date(Date.UTC(year, month - 1 + period.month, 1)));
  const last = iso(new Date(Date.UTC(year, month + period.month, 0)));
  return { from: first, to: period.month === 0 ? (last < day ? last : day) : last };
}

export const daysIn = ({ from, to }: { from: string; to: string }): number =>
  Math.round((Date.parse(`${to}T00:00:00Z`) - Date.parse(`${from}T00:00:00Z`)) / DAY) + 1;

/** What time is told by in the picture: few enough steps to be told apart. */
export function stepOf(days: { from: string; to: string }): 'day' | 'week' | 'month' {
  const many = daysIn(days);
  return many <= 62 ? 'day' : many <= 400 ? 'week' : 'month';
}

const SHORT = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', timeZone: 'UTC' });
const LONG = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', year: 'numeric', timeZone: 'UTC' });

/** “30 Oct – 26 Nov 2026” */
export function readDays({ from, to }: { from: string; to: string }): string {
  const [a, b] = [new Date(`${from}T00:00:00Z`), new Date(`${to}T00:00:00Z`)];
  const begin = (from.slice(0, 4) === to.slice(0, 4) ? SHORT : LONG).format(a);
  return from === to ? LONG.format(b) : `${begin} – ${LONG.format(b)}`;
}

export function readPeriod(period: Period): string {
  if ('from' in period) return readDays(period);
  if ('month' in period) return period.month === 0 ? 'this month' : 'last month';
  return period.last === 1 ? 'yesterday' : `the last ${period.last} days`;
}

/** What is asked of the server for the lines below one line; of the first ones for none. */
export function bodyOf(
  question: Question,
  days: { from: string; to: string },
  above: readonly string[],
): Schema['ResultsBody'] {
  const by = question.by[above.length];
  return {
    by: by ? [by] : [],
    ...days,
    beside: question.meant ? null : question.beside,
    where: [...question.where, ...aboveAsOnly(question, above)],
    reading: question.reading ?? null,
    order: question.measure,
    limit: 100,
  };
}

export const aboveAsOnly = (question: Question, above: readonly string[]): Only[] =>
  above.flatMap((value, i) => {
    const by = question.by[i];
    return by ? [{ by, is: [value] }] : [];
  });
