import { many } from '../../lib/numbers';
import type { OutsideChange } from './useOutside';

/** What happened to an element where it is no text that changed; null: one did. */
export function happened(o: Pick<OutsideChange, 'kind' | 'before' | 'after' | 'isAd' | 'ads'>): string | null {
  const below = o.isAd || o.ads === 0 ? '' : `, with ${many(o.ads, 'ad')} below it`;
  switch (o.kind) {
    case 'new':
      return `is new${below}`;
    case 'gone':
      return 'is not there any more; what it said and sent is kept';
    case 'back':
      return `is there again${below}`;
    case 'standing':
      return `${o.before ?? 'unknown'} → ${o.after ?? 'unknown'}`;
    case 'place':
      return `moved from “${o.before ?? 'nowhere'}” to “${o.after ?? 'nowhere'}”`;
    default:
      return null;
  }
}

/** What it does to the proof. */
export function effect(o: Pick<OutsideChange, 'judged' | 'breaks' | 'mends'>): string {
  if (!o.judged) return 'being proven';
  if (o.breaks > 0) return `breaks ${many(o.breaks, 'ad')}`;
  return o.mends > 0 ? `mends ${many(o.mends, 'ad')}` : 'no matter';
}
