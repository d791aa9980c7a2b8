import { useEffect, useRef } from 'react';
import { useNavigate } from 'react-router';
import { UnstyledButton } from '@mantine/core';
import { useHere } from '../../lib/useClient';
import { working } from '../changes/Steps';
import { Bar } from '../../components/Bar';
import css from './shell.module.css';
import { num } from '../../lib/numbers';
import { useChanged } from '../../lib/queries';
import { useRunning } from '../../lib/useRunning';

/** Long work that is going on, always in sight; when it ends, what it has changed is read anew. */
export function RunningWork() {
  const { to } = useHere();
  const changed = useChanged();
  const navigate = useNavigate();
  const running = useRunning();
  const work = running.data ? running.data.imports.length + running.data.changes.length : 0;
  const before = useRef(0);
  useEffect(() => {
    if (work < before.current) {
      changed('change', 'texts');
    }
    before.current = work;
  }, [work, changed]);

  const first = running.data?.changes[0];
  const imported = running.data?.imports[0];
  if (first) {
    const done = (first.progress.written ?? 0) + (first.progress.verified ?? 0) + (first.progress.failed ?? 0);
    const words = {
      drafting: 'working a change out',
      trying: `trying ${num(done)} of ${num(first.total)}`,
      paused: `held at ${num(done)} of ${num(first.total)}`,
    };
    return (
      <UnstyledButton
        className={css.running}
        title={first.status === 'drafting' ? working(first) : undefined}
        onClick={() => void navigate(to(`changes/${first.id}`))}
      >
        {first.status === 'drafting' ? (
          <Bar done={first.through} of={first.of} />
        ) : (
          <Bar done={done} of={first.total} />
        )}
        <span role="status">
          {first.status in words
            ? words[first.status as keyof typeof words]
            : `applying ${num(done)} of ${num(first.total)}`}
          {work > 1 && ` · ${work - 1} more`}
        </span>
      </UnstyledButton>
    );
  }
  if (imported) {
    return (
      <span className={css.running} role="status">
        <Bar done={imported.done} of={imported.total} label="progress" />
        {imported.status === 'proving' ? 'proving' : `importing ${num(imported.done)} of ${num(imported.total)}`}
      </span>
    );
  }
  return null;
}
