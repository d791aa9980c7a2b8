import { Button } from '@mantine/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { api, data, type Schema } from '../../api/client';
import { Notice } from '../../components/Notice';
import { Layer } from './Layer';
import { when } from './told';
import css from './you.module.css';

/** Where one is signed in, and an end to it. */
export function SessionsLayer({ sessions }: { sessions: Schema['Person']['sessions'] }) {
  const queries = useQueryClient();
  const onSettled = () => void queries.invalidateQueries({ queryKey: ['person'] });
  const end = useMutation({ mutationFn: (session: string) => data(api.DELETE('/person/sessions/{session}', { params: { path: { session } } })), onSettled });
  const endOthers = useMutation({ mutationFn: () => data(api.DELETE('/person/sessions')), onSettled });
  const others = sessions.filter((s) => !s.current).length;
  return (
    <Layer
      name="Sessions"
      holds
      says="Two hours without a request, or twelve in all, end one by itself."
      action={
        others > 0 && (
          <Button size="xs" variant="default" loading={endOthers.isPending} onClick={() => endOthers.mutate()}>
            End the {others} others
          </Button>
        )
      }
    >
      {(end.error ?? endOthers.error) && <Notice>{(end.error ?? endOthers.error)?.message}</Notice>}
      <ul className={css.sessions}>
        {sessions.map((s) => (
          <li key={s.id} data-current={s.current || undefined}>
            <span className={css.browser} title={s.browser}>
              {s.current ? <b>this one</b> : s.browser}
            </span>
            <span className="quiet">
              {s.address} · {when(s.seenAt)}
            </span>
            {!s.current && (
              <Button size="compact-xs" variant="subtle" loading={end.isPending && end.variables === s.id} onClick={() => end.mutate(s.id)}>
                End it
              </Button>
            )}
          </li>
        ))}
      </ul>
    </Layer>
  );
}
