import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { api, data } from '../../api/client';
import { many } from '../../lib/numbers';
import { keyOf } from '../../lib/queries';
import { useHere } from '../../lib/useClient';
import { isAccepted } from '../audit/words';
import { today } from '../results/question';
import css from './arrivals.module.css';

/** How much arrives otherwise than was agreed on; Audit says what, and from where. */
export function ArriveWrong() {
  const { client, to } = useHere();
  const audit = useQuery({
    queryKey: keyOf('troubles', client.id),
    queryFn: () => data(api.GET('/clients/{client}/troubles', { params: { path: { client: client.id } } })),
    staleTime: 60_000,
  });
  const day = today(client.timeZone);
  const open = (audit.data?.items ?? []).filter(
    (t) => t.kind === 'arrives' && t.mendedAt === null && !isAccepted(t, day),
  );
  const sessions = Math.max(0, ...open.map((t) => t.clicks));
  return open.length === 0 ? null : (
    <Link className={css.clear} to={to('audit')} title={`the commonest in ${many(sessions, 'session')} of 30 days`}>
      {many(open.length, 'thing')} {open.length === 1 ? 'arrives' : 'arrive'} wrong
    </Link>
  );
}
