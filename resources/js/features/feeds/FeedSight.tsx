import { useDebouncedValue } from '@mantine/hooks';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { api, data, type Schema } from '../../api/client';
import { Notice } from '../../components/Notice';
import { keyOf } from '../../lib/queries';
import { useHere } from '../../lib/useClient';
import { Deciding } from './Deciding';
import { Made } from './Made';
import { ReadsLine } from './ReadsLine';
import { RuleEditor } from './RuleEditor';
import { FIRST, isWhole, type Reads, type Rule } from './rules';
import { Source } from './Source';
import css from './feeds.module.css';

/** A product list: where it comes from, its rules as they are being written, what they make, and what counts. */
export function FeedSight({ feed }: { feed: Schema['Feed'] }) {
  const { client, mayEdit } = useHere();
  const path = { client: client.id, feed: feed.id };
  const [edited, setEdited] = useState<{ rules: Rule[]; reads: Reads | null } | null>(null);
  const rules = edited?.rules ?? feed.rules;
  const reads = edited?.reads ?? feed.reads;
  const set = (some: { rules?: Rule[]; reads?: Reads }) => setEdited({ rules, reads, ...some });
  const whole = useQuery({
    queryKey: keyOf('feed', client.id, feed.id, feed.kept?.id),
    queryFn: () => data(api.GET('/clients/{client}/feeds/{feed}', { params: { path } })),
  });
  const columns = whole.data?.columns ?? [];
  const [asked] = useDebouncedValue({ rules, reads }, 200);
  const trial = useQuery({
    queryKey: keyOf('feed-trial', client.id, feed.id, feed.kept?.id, asked),
    queryFn: () =>
      data(
        api.POST('/clients/{client}/feeds/{feed}/trial', {
          params: { path },
          body: { rules: asked.rules, reads: asked.reads! },
        }),
      ),
    enabled: asked.reads !== null && feed.kept !== null && asked.rules.every(isWhole),
    placeholderData: keepPreviousData,
    retry: false,
  });
  const tally = trial.data;
  return (
    <div className={css.feed}>
      <Source feed={feed} />
      {feed.kept && reads && (
        <div className={css.work}>
          <section className={css.rules} aria-label="what is done to its links">
            <ReadsLine
              reads={reads}
              columns={columns}
              onChange={mayEdit ? (next) => set({ reads: next }) : undefined}
            />
            {trial.error && <Notice>{trial.error.message}</Notice>}
            {rules.map((rule, i) => (
              <RuleEditor
                key={i}
                n={i}
                rule={rule}
                reads={reads}
                columns={columns}
                takes={tally?.rules.length === rules.length ? tally.rules[i] : undefined}
                of={tally?.items}
                samples={(tally?.samples ?? []).filter((s) => s.rules.includes(i)).slice(0, 3)}
                onChange={mayEdit ? (next) => set({ rules: rules.map((r, k) => (k === i ? next : r)) }) : undefined}
                onOut={() => set({ rules: rules.filter((_, k) => k !== i) })}
                onMove={(by) => set({ rules: moved(rules, i, i + by) })}
              />
            ))}
            {mayEdit && (
              <button type="button" className={css.link} onClick={() => set({ rules: [...rules, FIRST] })}>
                another rule …
              </button>
            )}
          </section>
          <aside className={css.made} aria-label="what comes of it">
            <Deciding
              feed={feed}
              rules={rules}
              reads={reads}
              isEdited={edited !== null}
              mayEdit={mayEdit}
              onDone={() => setEdited(null)}
              onBring={(draft) => setEdited({ rules: draft.rules, reads: draft.reads })}
            />
            {tally && <Made tally={tally} rules={rules} />}
          </aside>
        </div>
      )}
    </div>
  );
}

function moved(rules: readonly Rule[], from: number, to: number): Rule[] {
  if (to < 0 || to >= rules.length) return [...rules];
  const next = rules.filter((_, i) => i !== from);
  next.splice(to, 0, rules[from]!);
  return next;
}
