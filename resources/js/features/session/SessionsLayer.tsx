import { Button } from '@mantine/core';
import { useMutation } from '@tanstack/react-query';
import { api, data, type Schema } from '../../api/client';
import { Notice } from '../../components/Notice';
import { Layer } from './Layer';
import css from './you.module.css';
import { useChanged } from '../../lib/queries';
import { moment } from '../../lib/moments';

const span = (minutes: number) => (minutes % 60 === 0 ? `${minutes / 60} hours` : `${minutes} minutes`);

/** What a browser calls itself, in short; as it is where that says nothing. */
export function browser(agent: string): string {
  const name = /(Edg|OPR|Firefox|HeadlessChrome|Chrome|Safari)\/(\d+)/.exec(agent);
  const system = /Windows|Android|iPhone|iPad|Mac OS X|Linux/.exec(agent);
  return name && system ? `${name[1]} ${name[2]}, ${system[0]}` : agent || 'unknown';
}

/** Where one is signed in, and an end to it. */
export function SessionsLayer({
  sessions,
  minutes,
}: {
  sessions: Schema['Person']['sessions'];
  minutes: Schema['Person']['minutes'];
}) {
  const changed = useChanged();
  const onSettled = () => changed('person');
  const end = useMutation({
    mutationFn: (session: string) => data(api.DELETE('/person/sessions/{session}', { params: { path: { session } } })),
    onSettled,
  });
  const endOthers = useMutation({ mutationFn: () => data(api.DELETE('/person/sessions')), onSettled });
  const others = sessions.filter((s) => !s.current).length;
  return (
    <Layer
      name="Sessions"
      holds
      says={`One ends by itself after ${span(minutes.idle)} without a request, or ${span(minutes.whole)} in all.`}
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
              {browser(s.browser)}
              {s.current && <b> · this one</b>}
            </span>
            <span className="quiet">
              {s.address} · {moment(s.seenAt)}
            </span>
            {!s.current && (
              <Button
                size="compact-xs"
                variant="subtle"
                loading={end.isPending && end.variables === s.id}
                onClick={() => end.mutate(s.id)}
              >
                End it
              </Button>
            )}
          </li>
        ))}
      </ul>
    </Layer>
  );
}
