import { useMutation, useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import { api, data, type Schema } from '../../api/client';
import { FindingList, type Finding } from '../../components/FindingList';
import { Icicle } from '../../components/Icicle';
import type { Cell } from '../../components/icicle';
import { Notice } from '../../components/Notice';
import { useHere } from '../../lib/useClient';
import { useKeys } from '../../lib/useKeys';
import { Switches } from './Switches';
import css from './accounts.module.css';
import { keyOf, useChanged } from '../../lib/queries';

/** What of the account the picture shows: what is below an element, or of that a band of neighbours. */
interface View {
  node: number;
  band: { from: string; to: string } | null;
  name: string;
}

/** Beside the table: the account's picture, which zooms and filters, and what is wrong in it. */
export function Overview({ account, onUnder }: { account: Schema['Account']; onUnder: (node: number | null) => void }) {
  const { client } = useHere();
  const [, setQuery] = useSearchParams();
  const [views, setViews] = useState<readonly View[]>([]);
  const view = views.at(-1) ?? null;
  const path = { client: client.id, account: account.id };
  const picture = useQuery({
    queryKey: keyOf(
      'picture',
      account.id,
      account.planRevision,
      account.proven,
      account.broken,
      view?.node,
      view?.band,
    ),
    queryFn: () =>
      data(
        api.GET('/clients/{client}/accounts/{account}/picture', {
          params: { path, query: view ? { root: String(view.node), ...view.band } : {} },
        }),
      ),
    placeholderData: (last) => last,
  });
  const cells = picture.data?.items ?? [];
  const show = (next: readonly View[]) => {
    setViews(next);
    const node = next.at(-1)?.node ?? null;
    onUnder(node === account.root ? null : node);
  };
  const out = () => show(views.slice(0, -1));
  const pick = (cell: Cell) => {
    if (cell.many > 1 && cell.parent !== null) {
      const band = { from: String(cell.from), to: String(cell.to) };
      show([...views, { node: cell.parent, band, name: cell.name }]);
      setQuery({ at: String(cell.id) });
    } else if (cell.id === cells[0]?.id) out();
    else show([...views, { node: cell.id, band: null, name: cell.name }]);
  };
  return (
    <aside className={css.side} aria-label="the account at a glance">
      <div className={css.sideHead}>
        <h2>{view?.name ?? 'The account'}</h2>
        {view && (
          <button type="button" className={css.link} onClick={out}>
            zoom out
          </button>
        )}
      </div>
      <Icicle cells={cells} width={286} height={230} at={view?.node ?? null} onPick={pick} onOut={out} />
      <Switches account={account} />
      <Findings account={account} />
    </aside>
  );
}

function Findings({ account }: { account: Schema['Account'] }) {
  const { client, to, mayEdit } = useHere();
  const navigate = useNavigate();
  const changed = useChanged();
  const [, setQuery] = useSearchParams();
  const [at, setAt] = useState(0);
  const found = useQuery({
    queryKey: keyOf('findings', account.id, account.planRevision, account.proven, account.broken),
    queryFn: () =>
      data(
        api.GET('/clients/{client}/accounts/{account}/findings', {
          params: { path: { client: client.id, account: account.id } },
        }),
      ),
    placeholderData: (last) => last,
  });
  const mend = useMutation({
    mutationFn: (finding: number) =>
      data(
        api.POST('/clients/{client}/findings/{finding}/change', { params: { path: { client: client.id, finding } } }),
      ),
    onSuccess: ({ id }) => {
      changed('change');
      void navigate(to(`changes/${id}`));
    },
  });
  const items = useMemo(() => found.data?.items ?? [], [found.data]);
  const go = (finding: Finding | undefined, index: number) => {
    if (!finding) return;
    setAt(index);
    if (finding.node !== null) setQuery({ at: String(finding.node) });
  };
  const fix = mend.mutate;
  useKeys(
    useMemo(
      () => ({
        n: () => setAt((i) => Math.min(i + 1, items.length - 1)),
        p: () => setAt((i) => Math.max(i - 1, 0)),
        f: () => {
          const one = items[at];
          if (mayEdit && one?.fix) fix(one.id);
        },
      }),
      [items, at, mayEdit, fix],
    ),
  );
  return (
    <>
      <div className={css.sideHead}>
        <h2>Findings</h2>
        <span className="quiet">
          {items.length === 500 ? 'the first 500' : items.length}
          {items.length > 0 && (
            <>
              {' '}
              <kbd>n</kbd> <kbd>p</kbd>
            </>
          )}
        </span>
      </div>
      {mend.error && <Notice>{mend.error.message}</Notice>}
      {found.error && <Notice>{found.error.message}</Notice>}
      <div className={css.findings} tabIndex={0} role="region" aria-label="findings">
        {found.data && items.length === 0 && <p className="quiet">Nothing is wrong with any text.</p>}
        <FindingList
          label="what is wrong in the account, the worst first"
          findings={items}
          at={at}
          onPick={go}
          onFix={mayEdit ? (f) => f.id !== undefined && fix(f.id) : undefined}
        />
      </div>
    </>
  );
}
