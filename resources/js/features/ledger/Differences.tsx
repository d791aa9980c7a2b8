import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { api, data } from '../../api/client';
import { Difference } from '../../components/Difference';
import { Place } from '../../components/Place';
import { Notice } from '../../components/Notice';
import { useHere } from '../../lib/useClient';
import css from './ledger.module.css';
import { num } from '../../lib/numbers';
import { keyOf } from '../../lib/queries';
import { moment } from '../../lib/moments';

/** The texts that were others on the one day than on the other. */
export function Differences({ account, from, to }: { account: number; from: string; to: string }) {
  const { client, to: page } = useHere();
  const found = useQuery({
    queryKey: keyOf('differences', account, from, to),
    queryFn: () =>
      data(
        api.GET('/clients/{client}/accounts/{account}/differences', {
          params: { path: { client: client.id, account }, query: { from, to } },
        }),
      ),
  });
  if (found.error) return <Notice>{found.error.message}</Notice>;
  if (!found.data) return null;
  const first =
    new Date(found.data.from).getTime() > new Date(from).getTime() + 1000
      ? ` Nothing is known before ${moment(found.data.from)}, the end of the first import.`
      : '';
  if (found.data.total === 0) return <p className="quiet">The same texts were live on both days.{first}</p>;
  return (
    <div className={css.list} tabIndex={0} role="region" aria-label="texts that were others">
      <p className="quiet">
        {num(found.data.total)} texts were others
        {found.data.total > found.data.items.length && `; the first ${found.data.items.length}`}.{first}
      </p>
      {found.data.items.map((d) => (
        <div key={`${d.node} ${d.kind} ${d.custom}`} className={css.entry}>
          <span>
            <Link to={page(`accounts/${account}?at=${d.node}`)}>{d.name}</Link> <span className="quiet">{d.level}</span>
          </span>
          <span>
            <Place kind={d.kind} name={d.custom} />
          </span>
          <span className="mono">
            <Difference before={d.before} after={d.after} />
          </span>
        </div>
      ))}
    </div>
  );
}
