import type { Schema } from '../../api/client';
import type { Line } from './useTree';

/** For whom a plan of their own is to be begun, and what it may be called. */
export type OwnPlan = Pick<Schema['PlanVariant'], 'title' | 'for'>;

/** A plan for the rows that are chosen; null: there are none, or they are not all campaigns or all groups. */
export function ownPlanFor(dialect: string, chosen: ReadonlySet<number>, lines: readonly Line[]): OwnPlan | null {
  const rows = lines.flatMap((l) => (l.row && chosen.has(l.row.id) ? [l.row] : []));
  const role = rows[0]?.role;
  if ((role !== 'campaign' && role !== 'group') || rows.length < chosen.size || rows.some((r) => r.role !== role)) {
    return null;
  }
  return {
    title: rows.length === 1 ? rows[0]!.name : `${rows[0]!.name} and ${rows.length - 1} more`,
    for: { platforms: [dialect], where: [{ field: `${role}.id`, is: rows.map((r) => r.externalId) }] },
  };
}
