import type { Schema } from '../../api/client';

export type Parameter = Schema['PlanParameter'];
type Part = Schema['PlanPart'];

/** Parts as one line to type: fixed text as it stands, fields in angle quotes. */
export function toText(parts: readonly Part[]): string {
  return parts.map((p) => (p.field === undefined ? (p.text ?? '') : `‹${p.field}›`)).join('');
}

/** The line read back; < and > do as well as ‹ and ›. An angle without its partner is text. */
export function toParts(text: string): Part[] {
  const parts: Part[] = [];
  for (const piece of text.split(/([‹<][a-z]+\.[\w.-]+[›>])/)) {
    if (/^[‹<][a-z]+\.[\w.-]+[›>]$/.test(piece)) parts.push({ field: piece.slice(1, -1) });
    else if (piece !== '') parts.push({ text: piece });
  }
  return parts.length === 0 ? [{ text: '' }] : parts;
}

/** The fields that fit what is typed after the last open angle; null if none is open. */
export function openField(text: string): string | null {
  return /[‹<]([\w.-]*)$/.exec(text)?.[1] ?? null;
}

export function complete(text: string, field: string): string {
  return text.replace(/[‹<][\w.-]*$/, `‹${field}›`);
}

type Platform = Schema['Platforms']['items'][number];

const MEDIUM: Record<Schema['Family'], string> = {
  search: 'cpc',
  social: 'paid_social',
  native: 'native',
  display: 'display',
  portal: 'listing',
};

/** A plan to begin with: the five UTM keys, with each connected platform's own source and medium. */
export function firstPlan(platforms: readonly Platform[]): Schema['PlanDocument'] {
  const connected = platforms
    .filter((p) => p.accounts > 0)
    .sort((a, b) => Number(b.family === 'search') - Number(a.family === 'search') || b.accounts - a.accounts);
  const [main, ...others] = connected;
  const source = (p: Platform) => p.id.split('-')[0]!;
  const where = (differs: (p: Platform) => boolean, says: (p: Platform) => string) => {
    const some = others.filter(differs);
    return some.length === 0
      ? {}
      : { platforms: Object.fromEntries(some.map((p) => [p.id, { parts: [{ text: says(p) }] }])) };
  };
  return {
    format: 'vestigon.plan/1',
    id: 'plan',
    title: 'What every click carries',
    clickId: 'required',
    parameters: [
      {
        key: 'utm_source',
        parts: [{ text: main ? source(main) : 'northquay' }],
        required: true,
        ...where(() => true, source),
      },
      {
        key: 'utm_medium',
        parts: [{ text: main ? MEDIUM[main.family] : 'cpc' }],
        required: true,
        ...where(
          (p) => MEDIUM[p.family] !== MEDIUM[main!.family],
          (p) => MEDIUM[p.family],
        ),
      },
      { key: 'utm_campaign', parts: [{ field: 'campaign.name' }], shape: 'slug', required: true },
      { key: 'utm_term', parts: [{ field: 'keyword.text' }], fallback: [[{ field: 'product.id' }]] },
      { key: 'utm_content', parts: [{ field: 'ad.id' }] },
    ],
  };
}
