import { NativeSelect } from '@mantine/core';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { api, data } from '../../api/client';
import { Notice } from '../../components/Notice';
import { keyOf, useChanged } from '../../lib/queries';
import { useHere } from '../../lib/useClient';
import css from './links.module.css';

/** The host of the short addresses: this installation's, or one of the client's own, which owners add and take out. */
export function Hosts({ host, onChange }: { host: string; onChange: (host: string) => void }) {
  const { client } = useHere();
  const changed = useChanged();
  const [typed, setTyped] = useState<string | null>(null);
  const path = { client: client.id };
  const hosts = useQuery({
    queryKey: keyOf('short-hosts', client.id),
    queryFn: () => data(api.GET('/clients/{client}/links/hosts', { params: { path } })),
    staleTime: 60_000,
  });
  const add = useMutation({
    mutationFn: (wanted: string) =>
      data(api.POST('/clients/{client}/links/hosts', { params: { path }, body: { host: wanted } })),
    onSuccess: (added) => {
      changed('short-hosts');
      setTyped(null);
      onChange(added.host);
    },
  });
  const takeOut = useMutation({
    mutationFn: async (id: number) => {
      await api.DELETE('/clients/{client}/links/hosts/{shortHost}', { params: { path: { ...path, shortHost: id } } });
    },
    onSuccess: () => {
      changed('short-hosts');
      onChange('');
    },
  });
  const items = hosts.data?.items ?? [];
  const one = items.find((h) => h.host === host);
  const problem = add.error ?? takeOut.error;
  return (
    <>
      {items.length > 0 && (
        <NativeSelect
          size="xs"
          aria-label="host of the short addresses"
          data={[
            { value: '', label: (hosts.data?.own ?? '').replace(/^https?:\/\//, '') },
            ...items.map((h) => h.host),
          ]}
          value={host}
          onChange={(e) => onChange(e.target.value)}
        />
      )}
      {client.role === 'owner' &&
        (typed === null ? (
          <button type="button" className={css.link} onClick={() => setTyped('')}>
            {items.length > 0 ? 'another host …' : 'at a host of your own …'}
          </button>
        ) : (
          <input
            className={css.another}
            autoFocus
            aria-label="a host of your own for short addresses"
            placeholder="go.shop.example, Enter"
            value={typed}
            onChange={(e) => setTyped(e.target.value.trim().toLowerCase())}
            onKeyDown={(e) => {
              if (e.key === 'Escape') setTyped(null);
              if (e.key === 'Enter' && typed !== '') add.mutate(typed);
            }}
          />
        ))}
      {client.role === 'owner' && one && (
        <button type="button" className={css.link} onClick={() => takeOut.mutate(one.id)}>
          take {one.host} out
        </button>
      )}
      {problem && <Notice>{problem.message}</Notice>}
    </>
  );
}
