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
  for (const piece of text.split(/([‹<][a-z.]+[›>])/)) {
    if (/^[‹<][a-z.]+[›>]$/.test(piece)) parts.push({ field: piece.slice(1, -1) });
    else if (piece !== '') parts.push({ text: piece });
  }
  return parts.length === 0 ? [{ text: '' }] : parts;
}

/** The fields that fit what is typed after the last open angle; null if none is open. */
export function openField(text: string): string | null {
  return /[‹<]([a-z.]*)$/.exec(text)?.[1] ?? null;
}

export function complete(text: string, field: string): string {
  return text.replace(/[‹<][a-z.]*$/, `‹${field}›`);
}

export const FIRST_PLAN: Schema['PlanDocument'] = {
  format: 'vestigon.plan/1',
  id: 'plan',
  title: 'What every click carries',
  clickId: 'required',
  parameters: [
    { key: 'utm_source', parts: [{ text: 'northquay' }], required: true },
    { key: 'utm_medium', parts: [{ text: 'cpc' }], required: true },
    { key: 'utm_campaign', parts: [{ field: 'campaign.name' }], shape: 'slug', required: true },
    { key: 'utm_term', parts: [{ field: 'keyword.text' }], fallback: [[{ field: 'product.id' }]] },
    { key: 'utm_content', parts: [{ field: 'ad.id' }] },
  ],
};
