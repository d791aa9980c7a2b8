import { Button, Progress } from '@mantine/core';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { api, data } from '../../api/client';
import { Notice } from '../../components/Notice';
import { State } from '../../components/State';
import { moment } from '../../lib/moments';
import { many, money, num } from '../../lib/numbers';
import { keyOf, useChanged } from '../../lib/queries';
import { useAccounts } from '../../lib/useAccounts';
import { useHere } from '../../lib/useClient';
import { useKeys } from '../../lib/useKeys';
import { DraftDialog } from '../changes/DraftDialog';
import { Made } from './Made';
import { pageOf, type Trouble } from './words';
import css from './audit.module.css';

/** Where one of the things that a trouble is about can be looked at. */
function placeOf(trouble: Trouble, id: number): string {
  if (trouble.kind === 'link') return `links?at=${id}`;
  return trouble.kind === 'names' ? `accounts/${trouble.account?.id}?at=${id}` : `trace/${id}`;
}

/** One trouble in full: its ads, the dearest first, and what can be done about it. */
export function Sight({ trouble, hasPlan, onAccept }: { trouble: Trouble; hasPlan: boolean; onAccept: () => void }) {
  const { client, mayEdit, to } = useHere();
  const changed = useChanged();
  const navigate = useNavigate();
  const accounts = useAccounts();
  /** of which trouble the ads are brought in line, as soon as it is known which they are */
  const [mending, setMending] = useState<number | null>(null);
  const path = { client: client.id, trouble: trouble.id };
  const ads = useQuery({
    queryKey: keyOf('trouble-ads', client.id, trouble.id, trouble.ads),
    queryFn: () => data(api.GET('/clients/{client}/troubles/{trouble}/ads', { params: { path } })),
    enabled: (trouble.ads > 0 && trouble.kind !== 'feed') || trouble.kind === 'names',
  });
  const again = useMutation({
    mutationFn: () => data(api.DELETE('/clients/{client}/troubles/{trouble}/accepted', { params: { path } })),
    onSuccess: () => changed('troubles'),
  });
  const account = accounts.data?.items.find((a) => a.id === trouble.account?.id);
  const ids = ads.data?.ids ?? [];
  const isLink = trouble.kind === 'link';
  const isNames = trouble.kind === 'names';
  const thing = isLink ? 'link' : isNames ? 'name' : 'ad';
  const mayMend =
    mayEdit &&
    hasPlan &&
    account !== undefined &&
    trouble.ads > 0 &&
    trouble.mendedAt === null &&
    !['silent', 'names'].includes(trouble.kind);
  const renames = mayEdit && isNames && trouble.mendedAt === null ? to(`plan/names?account=${account?.id}`) : null;
  useKeys(
    useMemo(
      () => ({
        c: () => {
          if (mayMend) setMending(trouble.id);
          if (renames) void navigate(renames);
        },
      }),
      [mayMend, renames, navigate, trouble.id],
    ),
  );
  return (
    <aside className={css.sight} aria-label="one cause in full">
      <h2>{trouble.what}</h2>
      <p>
        {trouble.where}
        <br />
        <span className="quiet">
          {trouble.mendedAt
            ? `mended ${moment(trouble.mendedAt)}`
            : `since ${moment(trouble.firstAt)}` +
              (trouble.returnedAt ? `, back again ${moment(trouble.returnedAt)}` : '')}
        </span>
      </p>
      {trouble.accepted && (
        <p className={css.accepted}>
          Accepted until {trouble.accepted.until}
          {trouble.accepted.by && ` by ${trouble.accepted.by}`}: {trouble.accepted.why}
        </p>
      )}
      {again.error && <Notice>{again.error.message}</Notice>}
      <div className={css.acts}>
        {mayMend && ids.length > 0 && (
          <Button size="compact-xs" onClick={() => setMending(trouble.id)} rightSection={<kbd>c</kbd>}>
            Bring {ids.length === 1 ? 'it' : `these ${num(ids.length)}`} in line
          </Button>
        )}
        {renames && (
          <Button size="compact-xs" component={Link} to={renames} rightSection={<kbd>c</kbd>}>
            Rename {ids.length === 1 ? 'it' : 'them'}
          </Button>
        )}
        {trouble.kind === 'outside' && (
          <Button size="compact-xs" variant="default" component={Link} to={to('changes?outside=1')}>
            What changed outside
          </Button>
        )}
        <Button size="compact-xs" variant="default" component={Link} to={to(pageOf(trouble))}>
          {trouble.account ? 'The account' : trouble.feed ? 'The list' : isLink ? 'The links' : 'The arrivals'}
        </Button>
        {mayEdit && trouble.mendedAt === null && (
          <Button size="compact-xs" variant="subtle" onClick={onAccept} rightSection={<kbd>a</kbd>}>
            Let it be
          </Button>
        )}
        {mayEdit && trouble.accepted && (
          <Button size="compact-xs" variant="subtle" onClick={() => again.mutate()}>
            No longer
          </Button>
        )}
      </div>
      {trouble.about && trouble.node !== null && <Made node={trouble.node} about={trouble.about} />}
      {ads.data && ads.data.placements.length > 0 && (
        <>
          <h3>by placement</h3>
          <ol className={css.placements}>
            {ads.data.placements.map((p) => (
              <li key={p.placement}>
                <span>{p.placement || 'none said'}</span>
                <Progress
                  size={6}
                  value={(100 * p.wrong) / p.sessions}
                  aria-label={`share that is wrong on ${p.placement || 'no placement'}`}
                />
                <span className="num">
                  {num(p.wrong)} of {num(p.sessions)}
                </span>
              </li>
            ))}
          </ol>
        </>
      )}
      {ads.error && <Notice>{ads.error.message}</Notice>}
      {ads.data && ads.data.items.length > 0 && (
        <>
          <h3>
            {ads.data.ids.length > ads.data.items.length
              ? `the dearest ${num(ads.data.items.length)} of ${many(ads.data.ids.length, thing)}`
              : many(isNames ? ads.data.ids.length : trouble.ads, thing)}
          </h3>
          <ol>
            {ads.data.items.map((a) => (
              <li key={a.id}>
                {a.state ? <State state={a.state as 'proven' | 'broken' | 'untracked'} /> : <span />}
                <Link to={to(placeOf(trouble, a.id))} title={a.fault ?? a.name}>
                  {a.name}
                </Link>
                <span className="quiet">{a.parent}</span>
                <span className="num">{a.cost > 0 ? money(a.cost, client.currency) : ''}</span>
              </li>
            ))}
          </ol>
        </>
      )}
      {mending === trouble.id && account && ids.length > 0 && (
        <DraftDialog account={account} over={{ nodes: ids }} count={ids.length} onClose={() => setMending(null)} />
      )}
    </aside>
  );
}
