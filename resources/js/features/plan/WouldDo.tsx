import { Button } from '@mantine/core';
import { keepPreviousData, useQueries, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { api, data, type Schema } from '../../api/client';
import { num } from '../../lib/numbers';
import { keyOf } from '../../lib/queries';
import { useAccounts } from '../../lib/useAccounts';
import { useHere } from '../../lib/useClient';
import { wholeOf } from './would';
import css from './plan.module.css';

type Document = Schema['PlanDocument'];

/** What is said otherwise than was agreed last, and what that would do to every account. */
export function WouldDo({ document, platforms }: { document: Document; platforms: ReadonlyMap<string, string> }) {
  const { client, to } = useHere();
  const queries = useQueryClient();
  const accounts = useAccounts();
  const [held, setHeld] = useState<Document | null>(null);
  const path = { client: client.id };
  const differences = useQuery({
    queryKey: keyOf('plan-differences', client.id, document),
    queryFn: () => data(api.POST('/clients/{client}/plan/differences', { params: { path }, body: { document } })),
    placeholderData: keepPreviousData,
    retry: false,
  });
  const would = useQueries({
    queries: (held === null ? [] : (accounts.data?.items ?? [])).map((account) => ({
      queryKey: keyOf('plan-would', client.id, account.id, held),
      queryFn: ({ queryKey, signal }) =>
        wholeOf(
          (above) =>
            data(
              api.POST('/clients/{client}/plan/consequences', {
                params: { path },
                body: { document: held!, account: account.id, above },
                signal,
              }),
            ),
          (soFar) => queries.setQueryData(queryKey, soFar),
        ),
      retry: false,
      staleTime: Infinity,
    })),
  });
  const items = differences.data?.items ?? [];
  if (items.length === 0) return null;
  const isHeld = held !== null && JSON.stringify(held) === JSON.stringify(document);
  const breaks = would.reduce((sum, w) => sum + (w.data?.breaks ?? 0), 0);
  const broken = would.filter((w) => (w.data?.breaks ?? 0) > 0).length;
  return (
    <section aria-label="what it would do">
      <h2 className={css.keptHead}>Said otherwise</h2>
      <table className={css.differences}>
        <tbody>
          {items.map((d) => (
            <tr key={`${d.variant} ${d.key} ${d.place}`}>
              <th scope="row" className="mono">
                {[d.key ?? (d.variant === null ? 'the plan' : null), d.variant].filter((x) => x !== null).join(' · ')}
              </th>
              <td className="quiet">{platforms.get(d.place) ?? d.place}</td>
              <td>
                <del className="mono">{d.before ?? ''}</del>
              </td>
              <td>
                <ins className="mono">{d.after ?? 'no more'}</ins>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <div className={css.would}>
        <Button size="xs" variant="default" disabled={isHeld} onClick={() => setHeld(document)}>
          Hold it against all ads
        </Button>
        {isHeld && (
          <b role="status">
            {would.some((w) => w.isFetching)
              ? `Looking …${breaks > 0 ? ` ${num(breaks)} that are proven now would not be, so far` : ''}`
              : breaks === 0
                ? 'No ad that is proven now would be broken.'
                : `Proven now, would not be: ${num(breaks)} ads of ${num(broken)} account${broken === 1 ? '' : 's'}.`}
          </b>
        )}
      </div>
      {isHeld &&
        would.map(
          ({ data: one }) =>
            one && (
              <Link key={one.account.id} to={to(`accounts/${one.account.id}`)} className={css.kept}>
                <span>{one.account.name}</span>
                <span>
                  {one.breaks > 0 && <b className={css.breaks}>{num(one.breaks)} would be broken</b>}
                  {one.breaks > 0 && one.mends > 0 && ', '}
                  {one.mends > 0 && `${num(one.mends)} would be proven`}
                  {one.breaks === 0 && one.mends === 0 && 'nothing changes'}
                  {one.looked < one.ads && ` (${num(one.looked)} of ${num(one.ads)} ads so far)`}
                </span>
                <span className="quiet">{one.samples[0] && `${one.samples[0].name}: ${one.samples[0].reason}`}</span>
              </Link>
            ),
        )}
    </section>
  );
}
