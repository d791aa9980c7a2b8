import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import { api, data, type Schema } from '../../api/client';
import { FindingList, type Finding } from '../../components/FindingList';
import { Icicle } from '../../components/Icicle';
import { Notice } from '../../components/Notice';
import { useHere } from '../../lib/useClient';
import { useKeys } from '../../lib/useKeys';
import { Switches } from './Switches';
import css from './accounts.module.css';

/** Beside the table: the account's picture, which zooms and filters, and what is wrong in it. */
export function Overview({
  account,
  under,
  onUnder,
}: {
  account: Schema['Account'];
  under: number | null;
  onUnder: (node: number | null) => void;
}) {
  const { client } = useHere();
  const path = { client: client.id, account: account.id };
  const picture = useQuery({
    queryKey: ['picture', account.id, account.planRevision, account.proven, account.broken, under],
    queryFn: () =>
      data(
        api.GET('/clients/{client}/accounts/{account}/picture', {
          params: { path, query: { root: under === null ? undefined : String(under) } },
        }),
      ),
    placeholderData: (last) => last,
  });
  const cells = picture.data?.items ?? [];
  const above = cells.find((c) => c.id === under)?.parent ?? null;
  return (
    <aside className={css.side} aria-label="the account at a glance">
      <div className={css.sideHead}>
        <h2>{under === null ? 'The account' : cells[0]?.name}</h2>
        {under !== null && (
          <button type="button" className={css.link} onClick={() => onUnder(above === account.root ? null : above)}>
            zoom out
          </button>
        )}
      </div>
      <Icicle
        cells={cells}
        width={286}
        height={230}
        at={under}
        onPick={(id) =>
          onUnder(id === account.root ? null : id === under ? (above === account.root ? null : above) : id)
        }
      />
      <Switches account={account} />
      <Findings account={account} />
    </aside>
  );
}

function Findings({ account }: { account: Schema['Account'] }) {
  const { client, to, mayEdit } = useHere();
  const navigate = useNavigate();
  const queries = useQueryClient();
  const [, setQuery] = useSearchParams();
  const [at, setAt] = useState(0);
  const found = useQuery({
    queryKey: ['findings', account.id, account.planRevision, account.proven, account.broken],
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
      for (const key of ['running', 'changes']) void queries.invalidateQueries({ queryKey: [key] });
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
