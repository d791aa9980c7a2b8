import { Button, Checkbox, TextInput } from '@mantine/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api, data, type Schema } from '../../api/client';
import { Notice } from '../../components/Notice';
import { Ribbon } from '../../components/Ribbon';
import { moment } from '../../lib/moments';
import { many, num } from '../../lib/numbers';
import { keyOf, useChanged } from '../../lib/queries';
import { useHere } from '../../lib/useClient';
import { Code } from './Code';
import { Days } from './Days';
import { Elsewhere } from './Elsewhere';
import css from './links.module.css';

/** One link: its short address and code, how often it was opened, where it has led, and what is to be otherwise. */
export function Sight({
  link,
  keys,
  onClose,
  onGone,
}: {
  link: Schema['Link'];
  keys: readonly string[];
  onClose: () => void;
  onGone: (link: { id: number; title: string }) => void;
}) {
  const { client, mayEdit } = useHere();
  const queries = useQueryClient();
  const changed = useChanged();
  const [moving, setMoving] = useState(false);
  const path = { client: client.id, link: link.id };
  const key = keyOf('link-whole', client.id, link.id);
  const query = useQuery({
    queryKey: key,
    queryFn: () => data(api.GET('/clients/{client}/links/{link}', { params: { path } })),
  });
  const kept = (now: Schema['LinkWhole']) => {
    queries.setQueryData(key, now);
    changed('links');
    setMoving(false);
  };
  const change = useMutation({
    mutationFn: (body: Change) => data(api.PUT('/clients/{client}/links/{link}', { params: { path }, body })),
    onSuccess: kept,
  });
  const letGo = useMutation({
    mutationFn: async () => {
      await api.DELETE('/clients/{client}/links/{link}', { params: { path } });
    },
    onSuccess: () => {
      changed('links');
      onGone({ id: link.id, title: link.title });
      onClose();
    },
  });
  const now = query.data;
  const problem = query.error ?? change.error ?? letGo.error;
  return (
    <aside className={css.sight} aria-label={`the link ${link.title}`}>
      <header>
        {mayEdit ? (
          <TextInput
            key={link.title}
            variant="unstyled"
            aria-label="what the link is for"
            placeholder="what is it for?"
            defaultValue={link.title}
            onBlur={(e) => e.target.value !== link.title && change.mutate({ title: e.target.value })}
            onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
            classNames={{ input: css.name ?? '' }}
          />
        ) : (
          <h2>{link.title}</h2>
        )}
        <button type="button" className={css.link} onClick={onClose}>
          close <kbd>Esc</kbd>
        </button>
      </header>
      {problem && <Notice>{problem.message}</Notice>}
      {link.short && <Code key={link.short} address={link.short} name={link.code ?? 'link'} />}
      <Ribbon segments={link.segments} label="the link" bad={link.findings.flatMap((f) => f.key ?? [])} />
      <ul className={css.said}>
        {link.findings.map((f) => (
          <li key={`${f.code} ${f.key}`} data-severity={f.severity}>
            {f.reason}
          </li>
        ))}
      </ul>
      {now && now.days.length > 0 && <Days days={now.days} />}
      {now && (
        <dl>
          <dt>opened</dt>
          <dd>
            {link.short === null
              ? 'not counted: it has no short address'
              : `${many(now.opened, 'time')}; ${num(now.programs)} more by programs that say what they are`}
          </dd>
          <dt>made</dt>
          <dd>
            {moment(now.madeAt)}
            {now.madeBy && ` by ${now.madeBy}`}
          </dd>
          {link.short && mayEdit && (
            <>
              <dt>leads until</dt>
              <dd>
                <input
                  type="datetime-local"
                  aria-label="leads until"
                  value={local(now.endsAt)}
                  onChange={(e) =>
                    change.mutate({ endsAt: e.target.value === '' ? null : new Date(e.target.value).toISOString() })
                  }
                />
              </dd>
            </>
          )}
        </dl>
      )}
      {now && link.short && mayEdit && (
        <Checkbox
          size="xs"
          label="what stands behind the short address goes on to the page"
          checked={now.forwards}
          onChange={(e) => change.mutate({ forwards: e.target.checked })}
        />
      )}
      {moving ? (
        <Elsewhere
          link={link}
          keys={keys}
          isKeeping={change.isPending}
          onKeep={(to) => change.mutate(to)}
          onLeave={() => setMoving(false)}
        />
      ) : (
        mayEdit && (
          <div className={css.acts}>
            <Button size="compact-xs" variant="default" onClick={() => setMoving(true)}>
              Let it lead elsewhere
            </Button>
            <Button
              size="compact-xs"
              variant="subtle"
              color="red"
              loading={letGo.isPending}
              onClick={() => letGo.mutate()}
            >
              Let go of it
            </Button>
          </div>
        )
      )}
      {now && now.moves.length > 0 && (
        <ol className={css.moves} aria-label="where it has led before">
          {now.moves.map((m) => (
            <li key={m.at + m.before}>
              <span>
                until {moment(m.at)}
                {m.by && `, ${m.by}`}
                {m.why && `: ${m.why}`}
              </span>
              <span className="mono">{m.before}</span>
            </li>
          ))}
        </ol>
      )}
    </aside>
  );
}

export type Change = NonNullable<
  import('../../api/schema').paths['/clients/{client}/links/{link}']['put']['requestBody']
>['content']['application/json'];

/** An instant as a field for local times takes it. */
function local(instant: string | null): string {
  if (instant === null) return '';
  const at = new Date(instant);
  return new Date(at.getTime() - at.getTimezoneOffset() * 60_000).toISOString().slice(0, 16);
}
