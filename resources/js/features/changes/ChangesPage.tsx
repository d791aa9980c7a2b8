import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { api, data, type Schema } from '../../api/client';
import { Empty, Notice } from '../../components/Notice';
import { useHere } from '../../lib/useClient';
import { useKeys } from '../../lib/useKeys';
import { Ledger } from '../ledger/Ledger';
import { ChangeStory } from './ChangeStory';
import { RUNNING, STATUS } from './status';
import css from './changes.module.css';

export default function ChangesPage() {
  const { client, to } = useHere();
  const params = useParams();
  const navigate = useNavigate();
  const changes = useQuery({
    queryKey: ['changes', client.id],
    queryFn: () => data(api.GET('/clients/{client}/changes', { params: { path: { client: client.id } } })),
    refetchInterval: (q) => (q.state.data?.items.some((c) => RUNNING.includes(c.status)) ? 1000 : false),
  });
  const list = changes.data?.items;
  const at = list?.findIndex((c) => String(c.id) === params.change) ?? -1;
  useKeys(
    useMemo(() => {
      const go = (i: number) => list?.[i] && void navigate(to(`changes/${list[i].id}`));
      return {
        l: () => void navigate(to('changes/ledger')),
        j: () => go(at < 0 ? (params.change === 'ledger' ? 0 : 1) : at + 1),
        k: () => go(at - 1),
      };
    }, [list, at, params.change, navigate, to]),
  );
  if (changes.error) return <Notice>{changes.error.message}</Notice>;
  if (!changes.data) return null;
  if (changes.data.items.length === 0) {
    return (
      <Empty title="No change yet" action={<Link to={to('accounts')}>Open the accounts</Link>}>
        A change brings an account in line with the plan: worked out first, looked at, then applied and read back. Start
        one in the accounts with <kbd>c</kbd>.
      </Empty>
    );
  }
  const ledger = params.change === 'ledger';
  const id = params.change && !ledger ? Number(params.change) : changes.data.items[0]!.id;
  return (
    <div className={css.page}>
      <nav className={css.list} aria-label="changes, newest first">
        <Link
          to={to('changes/ledger')}
          className={`${css.item} ${ledger ? css.on : ''}`}
          aria-current={ledger ? 'page' : undefined}
        >
          <b>The ledger</b>
          <span className="quiet">
            every text that was written, and what was live on any day <kbd>l</kbd>
          </span>
        </Link>
        {changes.data.items.map((c, i, all) => {
          const among = c.together !== null; // of those drafted together, the first says what, the others only where
          return (
            <Link
              key={c.id}
              to={to(`changes/${c.id}`)}
              className={`${css.item} ${!ledger && c.id === id ? css.on : ''}`}
              aria-current={!ledger && c.id === id ? 'page' : undefined}
            >
              {(!among || all[i - 1]?.together !== c.together) && (
                <>
                  <b>{c.title}</b>
                  <span className="quiet">
                    {c.author}, {when(c)}
                  </span>
                </>
              )}
              {among && <span>{c.account}</span>}
              <span>
                <em data-status={c.status}>{STATUS[c.status]}</em> · {c.writes} writes
              </span>
            </Link>
          );
        })}
      </nav>
      {ledger ? <Ledger /> : <ChangeStory key={id} id={id} />}
    </div>
  );
}

function when(change: Schema['Changes']['items'][number]): string {
  return change.at ? new Date(change.at).toLocaleString([], { dateStyle: 'medium', timeStyle: 'short' }) : '';
}
