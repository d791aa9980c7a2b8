import { Button } from '@mantine/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useMemo, useRef } from 'react';
import { useNavigate } from 'react-router';
import { api, data, type Schema } from '../../api/client';
import { Notice } from '../../components/Notice';
import { RibbonLegend } from '../../components/Ribbon';
import { StateBar, type Counts } from '../../components/State';
import { useHere } from '../../lib/useClient';
import { useKeys } from '../../lib/useKeys';
import { Sample } from './Sample';
import { Writes } from './Writes';
import { STATUS } from './status';
import css from './changes.module.css';

/** A change as a story: what, why, on how many ads, before and after, how far it is, what did not take. */
export function ChangeStory({ id }: { id: number }) {
  const { client, mayEdit, to } = useHere();
  const navigate = useNavigate();
  const queries = useQueryClient();
  const path = { client: client.id, change: id };
  const change = useQuery({
    queryKey: ['change', id],
    queryFn: () => data(api.GET('/clients/{client}/changes/{change}', { params: { path } })),
    refetchInterval: (q) => (q.state.data && ['drafting', 'applying'].includes(q.state.data.status) ? 500 : false),
  });
  const apply = useMutation({
    mutationFn: () => data(api.POST('/clients/{client}/changes/{change}/application', { params: { path } })),
    onSettled: () => {
      for (const key of ['change', 'changes', 'running', 'writes']) void queries.invalidateQueries({ queryKey: [key] });
    },
  });
  const takeBack = useMutation({
    mutationFn: () => data(api.POST('/clients/{client}/changes/{change}/reversal', { params: { path } })),
    onSuccess: (drafted) => {
      for (const key of ['changes', 'running']) void queries.invalidateQueries({ queryKey: [key] });
      void navigate(to(`changes/${drafted.id}`));
    },
  });
  const status = change.data?.status;
  const before = useRef(status);
  useEffect(() => {
    if (before.current !== status && before.current !== undefined) {
      for (const key of ['changes', 'writes', 'accounts', 'rows', 'trace']) void queries.invalidateQueries({ queryKey: [key] });
    }
    before.current = status;
  }, [status, queries]);
  const mayStart = mayEdit && (status === 'ready' || status === 'stopped' || status === 'partly');
  const start = apply.mutate;
  useKeys(useMemo(() => ({ a: () => mayStart && start() }), [mayStart, start]));

  if (change.error) return <Notice>{change.error.message}</Notice>;
  if (!change.data) return null;
  const c = change.data;
  return (
    <article className={css.story}>
      <header className={css.head}>
        <div>
          <h1>{c.title}</h1>
          <p className="quiet">
            {c.account.name} · by {c.author} · plan revision {c.planRevision}
            {c.appliedBy && ` · applied by ${c.appliedBy}`}
          </p>
          {c.reason && <p className={css.reason}>{c.reason}</p>}
        </div>
        <div className={css.act}>
          <em data-status={c.status} data-testid="status">
            {STATUS[c.status]}
          </em>
          {mayEdit && (c.status === 'done' || c.status === 'partly' || c.status === 'stopped') && (
            <Button size="sm" variant="default" loading={takeBack.isPending} onClick={() => takeBack.mutate()}>
              Take it back
            </Button>
          )}
          {mayStart && (
            <Button size="sm" loading={apply.isPending} onClick={() => apply.mutate()} rightSection={<kbd>a</kbd>}>
              {c.status === 'ready' ? `Apply ${c.total} writes` : 'Go on from here'}
            </Button>
          )}
        </div>
      </header>
      {(apply.error?.message ?? takeBack.error?.message ?? c.problem) && <Notice>{apply.error?.message ?? takeBack.error?.message ?? c.problem}</Notice>}
      {c.status === 'ready' && !c.planIsCurrent && <Notice calm>The plan has changed since this was worked out. Draft the change again.</Notice>}
      <Progress change={c} />
      {c.story && <Told story={c.story} was={c.status === 'ready' ? 'now' : 'before'} />}
      {c.status !== 'drafting' && <Writes id={id} running={c.status === 'applying'} />}
    </article>
  );
}

function Progress({ change }: { change: Schema['Change'] }) {
  if (change.status === 'drafting') return <p role="status">Computing what every ad sends now, and the smallest change that makes it true …</p>;
  if (change.status === 'ready') return null;
  const n = (state: string) => change.progress[state] ?? 0;
  const written = n('written') + n('verified') + n('differs');
  return (
    <div className={css.progress} role="status" aria-label="progress">
      <progress max={change.total} value={written + n('failed')} />
      <span>
        {written} of {change.total} written, {n('verified')} read back and the same
        {n('failed') + n('differs') > 0 && <b className={css.bad}> · {n('failed') + n('differs')} did not take</b>}
      </span>
    </div>
  );
}

function Told({ story, was }: { story: Schema['Story']; was: string }) {
  const before = story.states.before as unknown as Counts;
  const after = story.states.after as unknown as Counts;
  return (
    <>
      <div className={css.sums}>
        <div>
          <span>{was}</span>
          <StateBar {...before} />
          <span>{words(before)}</span>
        </div>
        <div>
          <span>after</span>
          <StateBar {...after} />
          <span>{words(after)}</span>
        </div>
        <p>
          <b>{story.writes}</b> writes for <b>{story.ads}</b> ads{story.customs > 0 && `, ${story.customs} of them custom parameters`}
          {story.overridden > 0 && `; ${story.overridden} narrower texts are rewritten or cleared`}
        </p>
      </div>
      {story.unmet.length > 0 && (
        <section className={css.section}>
          <h2>What it can’t give</h2>
          <ul className={css.unmet}>
            {story.unmet.map((u) => (
              <li key={u.key + u.reason}>
                {u.key && <b className="mono">{u.key} </b>}
                {u.reason}
                {!/[.!?]$/.test(u.reason) && '.'}{' '}
                <span className="quiet">
                  {u.count} {u.count === 1 ? 'ad' : 'ads'}: {u.examples.join(', ')}
                  {u.count > u.examples.length && ' …'}
                </span>
              </li>
            ))}
          </ul>
        </section>
      )}
      <section className={css.section}>
        <div className={css.sectionHead}>
          <h2>Before and after</h2>
          <RibbonLegend />
        </div>
        {story.samples.map((s) => (
          <Sample key={s.node} sample={s} was={was} />
        ))}
        {story.samples.length === 0 && <p className="quiet">Every ad keeps the plan already.</p>}
      </section>
    </>
  );
}

function words({ proven, broken, untracked }: Counts): string {
  return [proven && `${proven} proven`, broken && `${broken} broken`, untracked && `${untracked} untracked`].filter(Boolean).join(', ');
}
