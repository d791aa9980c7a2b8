import { Button, Modal, Stack, TextInput } from '@mantine/core';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { api, data, type Schema } from '../../api/client';
import { Notice } from '../../components/Notice';
import { useHere } from '../../lib/useClient';
import type { Over } from './choice';
import css from './accounts.module.css';
import { keyOf, useChanged } from '../../lib/queries';

/** Keeps a choice of elements under a name, so that a change can be drafted for it again. */
export function FilterDialog({
  account,
  over,
  onClose,
}: {
  account: Schema['Account'];
  over: Over;
  onClose: () => void;
}) {
  const { client } = useHere();
  const changed = useChanged();
  const [name, setName] = useState('');
  const filters = useFilters(account.id);
  const done = () => changed('filters');
  const keep = useMutation({
    mutationFn: () =>
      data(
        api.POST('/clients/{client}/filters', {
          params: { path: { client: client.id } },
          body: { name, account: account.id, filter: over },
        }),
      ),
    onSuccess: () => {
      done();
      onClose();
    },
  });
  const forget = useMutation({
    mutationFn: (filter: number) =>
      data(api.DELETE('/clients/{client}/filters/{filter}', { params: { path: { client: client.id, filter } } })),
    onSuccess: done,
  });
  return (
    <Modal opened onClose={onClose} title="Keep as a filter" size="sm">
      <form
        onSubmit={(e) => {
          e.preventDefault();
          keep.mutate();
        }}
      >
        <Stack gap="sm">
          <TextInput
            label="Called"
            required
            maxLength={100}
            value={name}
            onChange={(e) => setName(e.target.value)}
            data-autofocus
            description={words(over)}
          />
          {keep.error && <Notice>{keep.error.message}</Notice>}
          <Button type="submit" loading={keep.isPending}>
            Keep it
          </Button>
          {filters.map((f) => (
            <span key={f.id} className={css.acts}>
              <b>{f.name}</b> <span className="quiet">{words(f.filter)}</span>
              <Button size="compact-xs" variant="subtle" color="gray" onClick={() => forget.mutate(f.id)}>
                Forget
              </Button>
            </span>
          ))}
        </Stack>
      </form>
    </Modal>
  );
}

export function useFilters(account: number): Schema['Filter'][] {
  const { client } = useHere();
  const filters = useQuery({
    queryKey: keyOf('filters', client.id),
    queryFn: () => data(api.GET('/clients/{client}/filters', { params: { path: { client: client.id } } })),
  });
  return filters.data?.items.filter((f) => f.account === account) ?? [];
}

function words(over: Over): string {
  return (
    [
      over.nodes?.length && `${over.nodes.length} ${over.nodes.length === 1 ? 'element' : 'elements'} and all below`,
      over.state && `only ${over.state} ads`,
      over.q && `named “${over.q}”`,
    ]
      .filter(Boolean)
      .join(', ') || 'the whole account'
  );
}
