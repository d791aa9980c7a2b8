import { useMemo, useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { Empty, Notice } from '../../components/Notice';
import { useHere } from '../../lib/useClient';
import { useKeys } from '../../lib/useKeys';
import { Ledger } from '../ledger/Ledger';
import { useRunning } from '../../lib/useRunning';
import { Outside } from '../outside/Outside';
import { BESIDE, ChangeList } from './ChangeList';
import { ChangeStory } from './ChangeStory';
import { useChanges, type ChangeFilter } from './useChanges';
import css from './changes.module.css';

export default function ChangesPage() {
  const { to } = useHere();
  const params = useParams();
  const navigate = useNavigate();
  const [filter, setFilter] = useState<ChangeFilter>({ state: null, by: null });
  const changes = useChanges(filter);
  const outside = useRunning();
  const list = changes.items;
  const beside = BESIDE.find((b) => b === params.change) ?? null;
  const at = list.findIndex((c) => String(c.id) === params.change);
  useKeys(
    useMemo(() => {
      const go = (i: number) => list[i] && void navigate(to(`changes/${list[i].id}`));
      return {
        l: () => void navigate(to('changes/ledger')),
        u: () => void navigate(to('changes/outside')),
        j: () => go(at < 0 ? (beside ? 0 : 1) : at + 1),
        k: () => go(at - 1),
      };
    }, [list, at, beside, navigate, to]),
  );
  if (changes.error) return <Notice>{changes.error.message}</Notice>;
  if (!changes.ready) return null;
  const id = params.change && !beside ? Number(params.change) : list[0]?.id;
  const never = list.length === 0 && changes.dropped === 0 && filter.state === null && filter.by === null;
  if (never && !beside && !outside.data?.outside.open) {
    return (
      <Empty title="No change yet" action={<Link to={to('accounts')}>Open the accounts</Link>}>
        A change brings an account in line with the plan: worked out first, looked at, then applied and read back. Start
        one in the accounts with <kbd>c</kbd>.
      </Empty>
    );
  }
  return (
    <div className={css.page}>
      <ChangeList changes={changes} filter={filter} onFilter={setFilter} at={beside ?? id ?? 0} />
      {beside === 'ledger' && <Ledger />}
      {beside === 'outside' && <Outside />}
      {!beside && id !== undefined && <ChangeStory key={id} id={id} />}
    </div>
  );
}
