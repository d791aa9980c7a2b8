import type { Schema } from '../../api/client';
import { money } from '../../lib/numbers';

const NOT_COUNTED = { yes: '', test: ' (a test)', repeated: ' (counted before)' };

/** What was sold, as it is read, and why it does not count. */
export function converted({ name, value, currency, counts }: Schema['Conversion']): string {
  const worth = value !== null && currency ? ` ${money(value, currency)}` : '';
  return `${name || 'conversion'}${worth}${NOT_COUNTED[counts]}`;
}
