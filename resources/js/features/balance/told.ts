import { api, data } from '../../api/client';
import type { paths } from '../../api/schema';
import { num } from '../../lib/numbers';
import { ofClaim, ofClicks, type Of, type Stair } from './steps';

type Asked = paths['/clients/{client}/balance']['get']['parameters'];

/** What is shown of a period, of whatever kind. */
export interface Told {
  of: Of;
  total: Stair | null;
  lines: Stair[];
  more: number;
  provisional: string;
  /** Days that are being added up. */
  left: number;
  said: string;
}

export async function clicksOf(params: Asked): Promise<Told> {
  const { total, lines, ...rest } = await data(api.GET('/clients/{client}/balance', { params }));
  const repeats = total?.repeats ? `Beside the sum: ${num(total.repeats)} views of clicks that were seen before. ` : '';
  return { of: 'clicks', total: total && ofClicks(total), lines: lines.map(ofClicks), said: repeats, ...rest };
}

export async function claimsOf(of: 'conversions' | 'revenue', params: Asked): Promise<Told> {
  const { total, lines, ...rest } = await data(api.GET('/clients/{client}/balance/claims', { params }));
  const said = 'By the day of the click; platforms claim what follows within 30 days. ';
  return {
    of,
    total: total && ofClaim(total[of]),
    lines: lines.map((l) => ofClaim(l[of], l.key, l.name)),
    said,
    ...rest,
  };
}
