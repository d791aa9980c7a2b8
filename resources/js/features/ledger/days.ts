import type { Schema } from '../../api/client';
import { many, num } from '../../lib/numbers';

export type Item = Schema['PastDay']['items'][number];

/** The day before or after one, as the calendar has it. */
export function beside(day: string, by: number): string {
  const at = new Date(`${day}T12:00:00Z`);
  at.setUTCDate(at.getUTCDate() + by);
  return at.toISOString().slice(0, 10);
}

/** How many arrived, and of how many clicks, where the platform has said. */
export function arrivedOf({ arrived, clicks }: Pick<Item, 'arrived' | 'clicks'>): string {
  const views = arrived.reduce((n, way) => n + way.views, 0);
  if (views === 0 && !clicks) return 'no click';
  const came = views === 0 ? 'none arrived' : `${num(views)} arrived`;
  return clicks === null ? came : `${came} of ${many(clicks, 'click')}`;
}

/** One way in which clicks arrived: its values as they are read in reports. */
export const wayOf = (values: Item['arrived'][number]['values']): string =>
  values === null
    ? 'in other ways'
    : Object.values(values)
        .map((v) => v || '–')
        .join(' · ');
