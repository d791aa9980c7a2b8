import type { Schema } from '../../api/client';
import { money, num } from '../../lib/numbers';
import type { Measure } from './question';

export type Sums = Schema['ResultSums'];

interface Told {
  title: string;
  /** in words, where the title is short */
  means: string;
  kind: 'count' | 'money' | 'share' | 'ratio';
  /** does more of it mean better? null: neither does */
  better: 'more' | 'less' | null;
  /** can parts of it be added up? */
  adds: boolean;
  of: (sums: Sums, currency: string) => number | null;
}

const count = (title: string, of: (s: Sums) => number, better: Told['better'] = 'more', means = title): Told => ({
  title,
  means,
  kind: 'count',
  better,
  adds: true,
  of,
});

const paid = (title: string, means: string, better: Told['better'], of: (s: Sums) => Record<string, number>): Told => ({
  title,
  means,
  kind: 'money',
  better,
  adds: true,
  of: (s, currency) => of(s)[currency] ?? 0,
});

const rate = (title: string, means: string, kind: Told['kind'], better: Told['better'], of: Told['of']): Told => ({
  title,
  means,
  kind,
  better,
  adds: false,
  of,
});

/** What is counted, in the order of a click's way. */
export const MEASURES: Record<Measure, Told> = {
  impressions: count('impressions', (s) => s.impressions, null, 'impressions, as platforms say'),
  clicks: count('clicks', (s) => s.clicks, 'more', 'clicks, as platforms say'),
  cost: paid('cost', 'what platforms charged', null, (s) => s.cost),
  costPerClick: rate('cost per click', 'cost by clicks', 'money', 'less', (s, c) => s.rates.costPerClick[c] ?? null),
  sessions: count('sessions', (s) => s.sessions),
  newVisitors: count('new visitors', (s) => s.newVisitors, 'more', 'sessions of visitors who were not here before'),
  views: count('views', (s) => s.views, 'more', 'pages that were seen'),
  viewsEach: rate('views each', 'views a session', 'ratio', 'more', (s) => s.rates.viewsEach),
  onePage: rate('one page', 'share of sessions of one view', 'share', 'less', (s) => s.rates.onePage),
  costPerSession: rate('cost each', 'cost by sessions', 'money', 'less', (s, c) => s.rates.costPerSession[c] ?? null),
  conversions: count('conversions', (s) => s.conversions),
  conversion: rate('converts', 'conversions by sessions', 'share', 'more', (s) => s.rates.conversion),
  costPerConversion: rate(
    'cost per conversion',
    'cost by conversions',
    'money',
    'less',
    (s, c) => s.rates.costPerConversion[c] ?? null,
  ),
  revenue: paid('revenue', 'value of conversions', 'more', (s) => s.revenue),
  net: paid('net', 'revenue without what was taken back', 'more', (s) => s.net),
  revenueByCost: rate('return', 'revenue by cost', 'ratio', 'more', (s, c) => s.rates.revenueByCost[c] ?? null),
};

/** The columns at first. */
export const COLUMNS: readonly Measure[] = [
  'clicks',
  'cost',
  'sessions',
  'conversions',
  'conversion',
  'revenue',
  'costPerConversion',
  'revenueByCost',
];

const formats = new Map<string, Intl.NumberFormat>();
function format(key: string, options: Intl.NumberFormatOptions): Intl.NumberFormat {
  const known = formats.get(key) ?? new Intl.NumberFormat('en', options);
  formats.set(key, known);
  return known;
}

/** A value as it is read; large sums of money without their minor units. */
export function read(measure: Measure, value: number | null, currency: string): string {
  if (value === null) return '';
  const { kind } = MEASURES[measure];
  if (kind === 'share')
    return format('share', { style: 'percent', maximumFractionDigits: 1, minimumFractionDigits: 1 }).format(value);
  if (kind === 'ratio') return format('ratio', { maximumFractionDigits: 2, minimumFractionDigits: 2 }).format(value);
  if (kind === 'count')
    return Number.isInteger(value) ? num(value) : format('part', { maximumFractionDigits: 1 }).format(value);
  return money(value, currency);
}

export interface Change {
  text: string;
  /** null: neither good nor bad */
  good: boolean | null;
}

/** How far a value is from the one beside it; null: there is nothing to compare. */
export function change(measure: Measure, now: number | null, before: number | null): Change | null {
  if (now === null || before === null || before === 0) return null;
  const by = (now - before) / Math.abs(before);
  if (Math.abs(by) < 0.0005) return { text: '=', good: null };
  const { better } = MEASURES[measure];
  const shown = Math.abs(by) >= 10 ? '>999' : (Math.abs(by) * 100).toFixed(Math.abs(by) < 0.1 ? 1 : 0);
  return {
    text: `${by > 0 ? '+' : '−'}${shown} %`,
    good: better === null ? null : (better === 'more') === by > 0,
  };
}
