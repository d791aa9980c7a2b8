import { Button, TextInput } from '@mantine/core';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { api, data, type Schema } from '../../api/client';
import { Notice } from '../../components/Notice';
import { moment } from '../../lib/moments';
import { many, num } from '../../lib/numbers';
import { keyOf, useChanged } from '../../lib/queries';
import { useHere } from '../../lib/useClient';
import { isWhole, type Reads, type Rule } from './rules';
import css from './feeds.module.css';

type Draft = Schema['FeedDraft'];

/** From what is being written to what counts: worked out over all items, applied or discarded, and gone back from. */
export function Deciding({
  feed,
  rules,
  reads,
  isEdited,
  mayEdit,
  onDone,
  onBring,
}: {
  feed: Schema['Feed'];
  rules: Rule[];
  reads: Reads;
  isEdited: boolean;
  mayEdit: boolean;
  onDone: () => void;
  onBring: (draft: Draft) => void;
}) {
  const { client } = useHere();
  const changed = useChanged();
  const [why, setWhy] = useState('');
  const path = { client: client.id, feed: feed.id };
  const drafts = useQuery({
    queryKey: keyOf('feed-drafts', client.id, feed.id),
    queryFn: () => data(api.GET('/clients/{client}/feeds/{feed}/drafts', { params: { path } })),
    refetchInterval: (query) => (query.state.data?.items[0]?.state === 'working' ? 500 : false),
  });
  const latest = drafts.data?.items[0];
  const open = latest && ['working', 'ready', 'failed'].includes(latest.state) ? latest : undefined;
  const whole = useQuery({
    queryKey: keyOf('feed-draft', client.id, open?.id, open?.state),
    queryFn: () =>
      data(
        api.GET('/clients/{client}/feeds/{feed}/drafts/{draft}', { params: { path: { ...path, draft: open!.id } } }),
      ),
    enabled: open?.state === 'ready',
  });
  const draft = useMutation({
    mutationFn: () =>
      data(api.POST('/clients/{client}/feeds/{feed}/drafts', { params: { path }, body: { rules, reads, why } })),
    onSuccess: () => {
      changed('feeds');
      setWhy('');
    },
  });
  const decide = useMutation({
    mutationFn: ({ id, how }: { id: number; how: 'application' | 'discard' }) =>
      data(
        api.POST(`/clients/{client}/feeds/{feed}/drafts/{draft}/${how}`, { params: { path: { ...path, draft: id } } }),
      ),
    onSuccess: (_, { how }) => {
      changed('feeds');
      if (how === 'application') onDone();
    },
  });
  const problem = drafts.error ?? draft.error ?? decide.error;
  const wrong = whole.data?.result?.problems.filter((p) => p.code !== 'empty-column') ?? [];
  return (
    <div className={css.deciding}>
      {problem && <Notice>{problem.message}</Notice>}
      {mayEdit && !open && (
        <form
          onSubmit={(event) => {
            event.preventDefault();
            draft.mutate();
          }}
        >
          <TextInput
            size="xs"
            aria-label="why"
            placeholder="why?"
            value={why}
            onChange={(e) => setWhy(e.target.value)}
          />
          <Button
            type="submit"
            size="compact-sm"
            disabled={!rules.every(isWhole) || (!isEdited && feed.appliedAt !== null)}
            loading={draft.isPending}
          >
            Work it out over all items
          </Button>
          {isEdited && (
            <Button size="compact-sm" variant="subtle" onClick={onDone}>
              As it is applied
            </Button>
          )}
        </form>
      )}
      {open && (
        <div className={css.draft} role="status">
          {open.state === 'working' && <p>It is being worked out over all items …</p>}
          {open.state === 'failed' && <p>{open.problem}</p>}
          {open.state === 'ready' && whole.data?.result && (
            <p>
              <b>
                {num(whole.data.result.changed)} of {many(whole.data.result.items, 'item')}
              </b>{' '}
              would be handed on with other links
              {open.why && `, since ${open.why}`}.{wrong.map((p) => ` ${num(p.items)} ${p.says}.`)}
            </p>
          )}
          {open.state === 'ready' && !open.mayApply && (
            <p className="quiet">
              It is your own: another editor has to apply it, as {client.name} wants another person’s yes.
            </p>
          )}
          {mayEdit && (
            <div className={css.acts}>
              {open.state === 'ready' && open.mayApply && (
                <Button
                  size="compact-sm"
                  loading={decide.isPending}
                  onClick={() => decide.mutate({ id: open.id, how: 'application' })}
                >
                  Apply it
                </Button>
              )}
              <Button size="compact-sm" variant="subtle" onClick={() => decide.mutate({ id: open.id, how: 'discard' })}>
                Discard it
              </Button>
            </div>
          )}
        </div>
      )}
      <ol className={css.history} aria-label="what was applied before">
        {drafts.data?.items
          .filter((d) => d.state === 'applied')
          .slice(0, 6)
          .map((d, i) => (
            <li key={d.id}>
              <span>
                {i === 0 ? 'applied' : 'before'} {moment(d.decidedAt!)}
                {d.decidedBy && ` by ${d.decidedBy}`}
                {d.why && `: ${d.why}`}
              </span>
              {i > 0 && mayEdit && (
                <button type="button" className={css.link} onClick={() => onBring(d)}>
                  go back to it
                </button>
              )}
            </li>
          ))}
      </ol>
    </div>
  );
}
