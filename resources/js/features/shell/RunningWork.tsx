import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef } from 'react';
import { useNavigate } from 'react-router';
import { UnstyledButton } from '@mantine/core';
import { api, data } from '../../api/client';
import { useHere } from '../../lib/useClient';
import { working } from '../changes/Steps';
import css from './shell.module.css';

/** Long work that is going on, always in sight; when it ends, what it has changed is read anew. */
export function RunningWork() {
  const { client, to } = useHere();
  const queries = useQueryClient();
  const navigate = useNavigate();
  const running = useQuery({
    queryKey: ['running', client.id],
    queryFn: () => data(api.GET('/clients/{client}/running', { params: { path: { client: client.id } } })),
    refetchInterval: (q) =>
      q.state.data && q.state.data.imports.length + q.state.data.changes.length > 0 ? 700 : 4000,
  });
  const work = running.data ? running.data.imports.length + running.data.changes.length : 0;
  const before = useRef(0);
  useEffect(() => {
    if (work < before.current) {
      for (const key of ['accounts', 'rows', 'changes', 'change', 'writes', 'connections', 'trace', 'rows-page'])
        void queries.invalidateQueries({ queryKey: [key] });
    }
    before.current = work;
  }, [work, queries]);

  const first = running.data?.changes[0];
  const imported = running.data?.imports[0];
  if (first) {
    const done = (first.progress.written ?? 0) + (first.progress.verified ?? 0) + (first.progress.failed ?? 0);
    const words = {
      drafting: 'working a change out',
      trying: `trying ${done} of ${first.total}`,
      paused: `held at ${done} of ${first.total}`,
    };
    return (
      <UnstyledButton
        className={css.running}
        title={first.status === 'drafting' ? working(first) : undefined}
        onClick={() => void navigate(to(`changes/${first.id}`))}
      >
        <progress
          {...(first.status === 'drafting'
            ? { max: first.of || undefined, value: first.through || undefined }
            : { max: first.total || undefined, value: first.total ? done : undefined })}
          aria-hidden
        />
        <span role="status">
          {first.status in words ? words[first.status as keyof typeof words] : `applying ${done} of ${first.total}`}
          {work > 1 && ` · ${work - 1} more`}
        </span>
      </UnstyledButton>
    );
  }
  if (imported) {
    return (
      <span className={css.running} role="status">
        <progress
          max={imported.total || undefined}
          value={imported.total ? imported.done : undefined}
          aria-label="progress"
        />
        {imported.status === 'proving' ? 'proving' : `importing ${imported.done} of ${imported.total}`}
      </span>
    );
  }
  return null;
}
