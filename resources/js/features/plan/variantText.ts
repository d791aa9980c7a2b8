import type { Schema } from '../../api/client';

export type Variant = Schema['PlanVariant'];

/**
 * A variant to begin with: what the plan says.
 *
 * @param own for whom; null: for campaigns that are still to be named
 */
export function anotherOf(
  document: Schema['PlanDocument'],
  fields: readonly string[],
  own: Pick<Variant, 'title' | 'for'> | null = null,
): Variant {
  const taken = new Set(document.variants?.map((v) => v.id));
  let n = taken.size + 1;
  while (taken.has(`variant-${n}`)) n++;
  const part = fields.find((f) => f.startsWith('campaign.part.'));
  return {
    id: `variant-${n}`,
    title: `Plan ${n + 1}`,
    for: { where: [{ field: part ?? 'campaign.name', is: [] }] },
    ...own,
    parameters: structuredClone(document.parameters),
  };
}

/** What a variant still lacks before it can count for anything; null: nothing. */
export function lacking(variant: Variant): string | null {
  const { platforms, types, where = [] } = variant.for;
  const empty = where.find((w) => w.is.length === 0);
  if (variant.title.trim() === '') return 'It has no title yet.';
  if (empty) return `Say which values ${empty.field} has where it counts.`;
  if (!platforms?.length && !types?.length && where.length === 0)
    return 'Say for which platforms, campaign types or elements it counts.';
  return null;
}
