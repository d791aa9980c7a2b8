import { Button } from '@mantine/core';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { api, data, type Schema } from '../../api/client';
import { Notice } from '../../components/Notice';
import { useHere } from '../../lib/useClient';
import { useKeys } from '../../lib/useKeys';
import { Clicked } from './Clicked';
import { Refusal } from './Refusal';
import { SheetPanel } from './SheetPanel';
import { Steps, working } from './Steps';
import { Together } from './Together';
import { Told } from './Told';
import { Writes } from './Writes';
import { RUNNING, startWords, STATUS, waitsForApproval, type Step } from './status';
import { Bar } from '../../components/Bar';
import css from './changes.module.css';
import { num } from '../../lib/numbers';
import { keyOf, useChanged } from '../../lib/queries';

/**
 * A change as a story: what, why, on how many ads, before and after, how far it is, what did not take, how it is
 * taken back.
 */
export function ChangeStory({ id }: { id: number }) {
  const { client, to } = useHere();
  const path = useMemo(() => ({ client: client.id, change: id }), [client.id, id]);
  const change = useQuery({
    queryKey: keyOf('change', id),
    queryFn: () => data(api.GET('/clients/{client}/changes/{change}', { params: { path } })),
    refetchInterval: (q) => {
      if (q.state.data && [q.state.data, ...q.state.data.together].some((c) => RUNNING.includes(c.status))) return 500;
      return q.state.data?.story?.advice === null ? 3000 : false; // it is still looked for
    },
  });
  const [refusing, setRefusing] = useState(false);
  const c = change.data;
  const does = useActs(path, c?.draft ?? 0);
  useRefreshOn(c?.status);
  const steps = c?.may;
  const may = useCallback((step: Step) => steps?.includes(step) ?? false, [steps]);
  const opened = c && c.approval.needed && c.status === 'ready' && !c.approval.own ? c.approval.opened : null;
  const closed = useMemo(
    () => (opened === null || !c?.story ? [] : c.story.samples.filter((s) => !opened.includes(s.node))),
    [opened, c?.story],
  );
  const { start, approve, pause, stop, takeBack, look, drop, again } = does;
  useKeys(
    useMemo(
      () => ({
        a: () => may('start') && start.mutate(),
        y: () => may('approve') && approve.mutate(),
        n: (e) => {
          if (!may('refuse')) return;
          e.preventDefault(); // the letter is not for the field that opens
          setRefusing(true);
        },
        h: () => may('hold') && pause.mutate(),
        e: () => may('end') && stop.mutate(),
        d: () => may('drop') && drop.mutate(undefined),
        r: () => may('redraft') && again.mutate(undefined),
        x: () => may('take-back') && takeBack.mutate(undefined),
        o: () => closed[0] && look.mutate(closed[0].node),
      }),
      [may, closed, start, approve, pause, stop, takeBack, look, drop, again],
    ),
  );
  if (change.error) return <Notice>{change.error.message}</Notice>;
  if (!c) return null;
  const error = [start, approve, pause, stop, takeBack, look, drop, again].find((m) => m.error)?.error?.message;
  return (
    <article className={css.story}>
      <header className={css.head}>
        <div>
          <h1>{c.title}</h1>
          <p className="quiet">
            <em data-status={c.status} data-testid="status">
              {STATUS[c.status]}
            </em>{' '}
            · {c.account.name}
            {c.scope.length > 0 && ` · only ${c.scope.join(', ')}${c.scope.length === 5 ? ' …' : ''}`}
            {' · plan revision '}
            {c.planRevision}
            {c.takesBack !== null && (
              <>
                {' '}
                · takes back <Link to={to(`changes/${c.takesBack}`)}>change {c.takesBack}</Link>
              </>
            )}
            {c.takenBackBy !== null && (
              <>
                {' '}
                · taken back by <Link to={to(`changes/${c.takenBackBy}`)}>change {c.takenBackBy}</Link>
              </>
            )}
          </p>
          {c.reason && <p className={css.reason}>{c.reason}</p>}
        </div>
        <div className={css.act}>
          {may('drop') && <Act words="Drop it" k="d" quiet on={drop} />}
          {may('redraft') && (c.status !== 'ready' || !c.planIsCurrent || c.overlaps.length > 0 || error) && (
            <Act words="Work it out again" k="r" quiet={c.status === 'ready'} on={again} />
          )}
          {may('take-back') && <Act words="Take it back" k="x" quiet on={takeBack} />}
          {may('end') && <Act words="End it here" k="e" quiet on={stop} />}
          {may('hold') && <Act words="Hold it" k="h" on={pause} />}
          {may('refuse') && (
            <Button size="sm" variant="default" onClick={() => setRefusing(true)} rightSection={<kbd>n</kbd>}>
              Send it back
            </Button>
          )}
          {may('approve') && (
            <Act
              words={closed.length > 0 ? `Approve (open ${closed.length} more)` : 'Approve'}
              k="y"
              on={approve}
              disabled={closed.length > 0}
            />
          )}
          {may('start') && <Act words={startWords(c)} k="a" on={start} />}
        </div>
      </header>
      {refusing && may('refuse') && <Refusal path={path} onClose={() => setRefusing(false)} />}
      {c.together.length > 1 && <Together change={c} />}
      {(error ?? c.problem) && <Notice>{error ?? c.problem}</Notice>}
      <Beware change={c} waits={waitsForApproval(c)} />
      <Steps change={c} />
      {['drafting', 'trying', 'applying', 'paused'].includes(c.status) && <Progress change={c} />}
      {c.status === 'handed-out' && <SheetPanel change={c} />}
      {c.trial && <Clicked title="The trial" clicks={c.trial.clicks} />}
      {c.verified && c.verified.clicks.length > 0 && (
        <Clicked title="Clicked after the rest" clicks={c.verified.clicks} />
      )}
      {c.story && (
        <Told
          story={c.story}
          was={c.status === 'ready' || c.status === 'drafting' ? 'now' : 'before'}
          opened={opened}
          onOpen={(node) => look.mutate(node)}
        />
      )}
      {c.status !== 'drafting' && c.writes > 0 && (
        <Writes
          id={id}
          running={c.status === 'applying' || c.status === 'trying'}
          onTakeBack={may('take-back') ? (writes) => takeBack.mutate(writes) : undefined}
        />
      )}
    </article>
  );
}

/** What is worth knowing before it is started. */
function Beware({ change: c, waits }: { change: Schema['Change']; waits: boolean }) {
  const { client, to } = useHere();
  return (
    <>
      {c.status === 'ready' && !c.planIsCurrent && (
        <Notice calm>The plan has changed since this was worked out. Work it out again.</Notice>
      )}
      {c.status === 'ready' && c.total === 0 && (
        <Notice calm>Nothing is to be written: what the platform can give, the ads send already.</Notice>
      )}
      {waits && c.total > 0 && (
        <Notice calm>
          {c.approval.own
            ? `${client.name} wants another person’s yes before anything is written. ` +
              'It has to be a reviewer or an owner who opens the samples.'
            : `${c.author} asks for a yes. Open every sample, then approve.`}
        </Notice>
      )}
      {c.overlaps.length > 0 && (
        <Notice calm>
          {c.overlaps.map((o, i) => (
            <span key={o.id}>
              {i > 0 && ' '}
              <Link to={to(`changes/${o.id}`)}>“{o.title}”</Link> ({STATUS[o.status]}) is about the same elements
              {o.places > 0 && ` and writes ${o.places} of the same texts`}.
            </span>
          ))}{' '}
          One of them goes first; the other is then worked out again.
        </Notice>
      )}
    </>
  );
}

function Act({
  words,
  k,
  on,
  quiet = false,
  disabled = false,
}: {
  words: string;
  k: string;
  on: { mutate: (nothing: undefined) => void; isPending: boolean };
  quiet?: boolean;
  disabled?: boolean;
}) {
  return (
    <Button
      size="sm"
      variant={quiet ? 'default' : 'filled'}
      loading={on.isPending}
      disabled={disabled}
      onClick={() => on.mutate(undefined)}
      rightSection={<kbd>{k}</kbd>}
    >
      {words}
    </Button>
  );
}

function Progress({ change }: { change: Schema['Change'] }) {
  if (change.status === 'drafting') {
    return (
      <div className={css.progress} role="status" aria-label="progress">
        <Bar done={change.through} of={change.of} />
        <span>{working(change)}</span>
      </div>
    );
  }
  const n = (state: string) => change.progress[state] ?? 0;
  const written = n('written') + n('verified') + n('differs');
  return (
    <div className={css.progress} role="status" aria-label="progress">
      <Bar done={written + n('failed') + n('left')} of={change.total} />
      <span>
        {num(written)} of {num(change.total)} written, {num(n('verified'))} read back and the same
        {n('failed') + n('differs') > 0 && <b className={css.bad}> · {num(n('failed') + n('differs'))} did not take</b>}
      </span>
    </div>
  );
}

function useActs(path: { client: number; change: number }, draft: number) {
  const changed = useChanged();
  const navigate = useNavigate();
  const { to } = useHere();
  const params = { params: { path } };
  const onSettled = () => {
    changed('change');
  };
  const C = '/clients/{client}/changes/{change}' as const;
  return {
    start: useMutation({
      mutationFn: () => data(api.POST(`${C}/application`, { ...params, body: { draft } })),
      onSettled,
    }),
    approve: useMutation({
      mutationFn: () => data(api.POST(`${C}/approval`, { ...params, body: { draft } })),
      onSettled,
    }),
    pause: useMutation({ mutationFn: () => data(api.POST(`${C}/pause`, params)), onSettled }),
    stop: useMutation({ mutationFn: () => data(api.POST(`${C}/stop`, params)), onSettled }),
    drop: useMutation({ mutationFn: () => data(api.POST(`${C}/drop`, params)), onSettled }),
    again: useMutation({ mutationFn: () => data(api.POST(`${C}/again`, params)), onSettled }),
    look: useMutation({
      mutationFn: (node: number) => data(api.POST(`${C}/looks`, { ...params, body: { node, draft } })),
      onSettled: () => changed('look'),
    }),
    takeBack: useMutation({
      mutationFn: (writes: number[] | undefined) =>
        data(api.POST(`${C}/reversal`, { ...params, body: writes === undefined ? {} : { writes } })),
      onSuccess: (drafted) => {
        onSettled();
        void navigate(to(`changes/${drafted.id}`));
      },
    }),
  };
}

/** When a change has come further, all that it may have changed is read anew. */
function useRefreshOn(status: string | undefined) {
  const changed = useChanged();
  const before = useRef(status);
  useEffect(() => {
    if (before.current !== status && before.current !== undefined) {
      changed('change', 'texts');
    }
    before.current = status;
  }, [status, changed]);
}
