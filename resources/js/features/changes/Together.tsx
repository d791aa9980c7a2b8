import { Button } from '@mantine/core';
import { useMutation } from '@tanstack/react-query';
import { useMemo } from 'react';
import { Link } from 'react-router';
import { api, data, type Schema } from '../../api/client';
import { Notice } from '../../components/Notice';
import { useHere } from '../../lib/useClient';
import { useKeys } from '../../lib/useKeys';
import { STATUS } from './status';
import css from './changes.module.css';
import { useChanged } from '../../lib/queries';

/** The changes of other accounts that were drafted with this one: how far each is, and one key to go on with all. */
export function Together({ change }: { change: Schema['Change'] }) {
  const { client, mayEdit, to } = useHere();
  const changed = useChanged();
  const goOn = useMutation({
    mutationFn: () =>
      data(
        api.POST('/clients/{client}/changes/{change}/together/application', {
          params: { path: { client: client.id, change: change.id } },
        }),
      ),
    onSettled: () => {
      changed('change');
    },
  });
  const waiting = change.together.filter((c) => c.writes > 0 && (c.status === 'ready' || c.status === 'tried')).length;
  const may = mayEdit && waiting > 0;
  const { mutate } = goOn;
  useKeys(useMemo(() => ({ A: () => may && mutate() }), [may, mutate]));
  return (
    <section className={css.together} aria-label="drafted together">
      <ul>
        {change.together.map((c) => (
          <li key={c.id}>
            <Link to={to(`changes/${c.id}`)} aria-current={c.id === change.id ? 'true' : undefined} title={c.platform}>
              <b>{c.account}</b>
              <em data-status={c.status}>
                {c.status === 'ready' && c.writes === 0 ? 'nothing to write' : STATUS[c.status]}
              </em>
            </Link>
          </li>
        ))}
      </ul>
      {may && (
        <Button
          size="sm"
          variant="default"
          loading={goOn.isPending}
          onClick={() => mutate()}
          rightSection={<kbd>A</kbd>}
        >
          {waiting === 1 ? 'Go on with the one that waits' : `Go on with all ${waiting}`}
        </Button>
      )}
      {goOn.error && <Notice>{goOn.error.message}</Notice>}
      {goOn.data && goOn.data.waiting.length > 0 && (
        <Notice calm>
          {goOn.data.started} went on.{' '}
          {goOn.data.waiting.map((w) => (
            <span key={w.id}>
              <Link to={to(`changes/${w.id}`)}>{w.account}</Link>: {w.why}
              {/[.!?]$/.test(w.why) ? '' : '.'}{' '}
            </span>
          ))}
        </Notice>
      )}
    </section>
  );
}
