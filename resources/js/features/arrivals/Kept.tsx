import { Button } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api, data } from '../../api/client';
import { Notice } from '../../components/Notice';
import { many } from '../../lib/numbers';
import { keyOf, useChanged } from '../../lib/queries';
import { useHere } from '../../lib/useClient';
import css from './arrivals.module.css';

/** What an owner does for a visitor who asks what is kept of them: it is taken away as a file, or forgotten. */
export function Kept({ arrival }: { arrival: number }) {
  const { client } = useHere();
  const changed = useChanged();
  const queries = useQueryClient();
  const [asks, setAsks] = useState(false);
  const path = { client: client.id, arrival };
  const forget = useMutation({
    mutationFn: () => data(api.DELETE('/clients/{client}/arrivals/{arrival}/visitor', { params: { path } })),
    onSuccess: ({ records }) => {
      notifications.show({ message: `${many(records, 'record')} of a visitor forgotten.` });
      void queries.resetQueries({ queryKey: keyOf('arrivals', client.id) }); // not only the new ones
      changed('visitors');
    },
  });
  if (client.role !== 'owner') return null;
  if (forget.error) return <Notice>{forget.error.message}</Notice>;
  return asks ? (
    <p className={css.kept}>
      All that is kept of this visitor goes, and results are what they are without it. It can’t be put back.
      <Button size="compact-xs" loading={forget.isPending} onClick={() => forget.mutate()}>
        Forget it
      </Button>
      <Button size="compact-xs" variant="default" onClick={() => setAsks(false)}>
        Leave it
      </Button>
    </p>
  ) : (
    <p className={css.kept}>
      <a className={css.clear} href={`/api/v1/clients/${client.id}/arrivals/${arrival}/visitor`} download>
        all that is kept of this visitor
      </a>
      <button type="button" className={css.clear} onClick={() => setAsks(true)}>
        forget this visitor
      </button>
    </p>
  );
}
