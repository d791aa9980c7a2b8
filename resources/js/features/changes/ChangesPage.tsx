import { useMemo, useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { Empty, Notice } from '../../components/Notice';
import { useHere } from '../../lib/useClient';
import { useKeys } from '../../lib/useKeys';
import { Ledger } from '../ledger/Ledger';
import { ChangeList } from './ChangeList';
import { ChangeStory } from './ChangeStory';
import { useChanges, type ChangeFilter } from './useChanges';
import css from './changes.module.css';

export default function ChangesPage() {
  const { to } = useHere();
  const params = useParams();
  const navigate = useNavigate();
  const [filter, setFilter] = useState<ChangeFilter>({ state: null, by: null });
  const changes = useChanges(filter);
  const list = changes.items;
  const at = list.findIndex((c) => String(c.id) === params.change);
  useKeys(
    useMemo(() => {
      const go = (i: number) => list[i] && void navigate(to(`changes/${list[i].id}`));
      return {
        l: () => void navigate(to('changes/ledger')),
        j: () => go(at < 0 ? (params.change === 'ledger' ? 0 : 1) : at + 1),
        k: () => go(at - 1),
      };
    }, [list, at, params.change, navigate, to]),
  );
  if (changes.error) return <Notice>{changes.error.message}</Notice>;
  if (!changes.ready) return null;
  const ledger = params.change === 'ledger';
  const id = params.change && !ledger ? Number(params.change) : list[0]?.id;
  const never = list.length === 0 && changes.dropped === 0 && filter.state === null && filter.by === null;
  if (never && !ledger) {
    return (
      <Empty title="No change yet" action={<Link to={to('accounts')}>Open the accounts</Link>}>
        A change brings an account in line with the plan: worked out first, looked at, then applied and read back. Start
        one in the accounts with <kbd>c</kbd>.
      </Empty>
    );
  }
  return (
    <div className={css.page}>
      <ChangeList changes={changes} filter={filter} onFilter={setFilter} at={ledger ? null : (id ?? 0)} />
      {ledger ? <Ledger /> : id !== undefined && <ChangeStory key={id} id={id} />}
    </div>
  );
}
