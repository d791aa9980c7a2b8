import { Button, Select, TextInput } from '@mantine/core';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { api, data, type Schema } from '../../api/client';
import { Notice } from '../../components/Notice';
import { many } from '../../lib/numbers';
import { moment } from '../../lib/moments';
import { keyOf, useChanged } from '../../lib/queries';
import { useHere } from '../../lib/useClient';
import { Schedule } from '../outside/Schedule';
import css from './people.module.css';

type Connection = Schema['Connections']['items'][number];

/** Where the client's accounts come from; programs of one's own are connected here. */
export function Connections() {
  const { client } = useHere();
  const path = { client: client.id };
  const connections = useQuery({
    queryKey: keyOf('connections', client.id),
    queryFn: () => data(api.GET('/clients/{client}/connections', { params: { path } })),
  });
  const platforms = useQuery({
    queryKey: keyOf('platforms', client.id),
    queryFn: () => data(api.GET('/clients/{client}/platforms', { params: { path } })),
  });
  if (connections.error) return <Notice>{connections.error.message}</Notice>;
  if (!connections.data || !platforms.data) return null;
  const titles = Object.fromEntries(platforms.data.items.map((p) => [p.id, p.title]));
  return (
    <>
      <h2>Where its accounts come from</h2>
      {connections.data.items.length > 0 && (
        <table className={css.table}>
          <thead>
            <tr>
              <th scope="col">connection</th>
              <th scope="col">platform</th>
              <th scope="col">by</th>
              <th scope="col">imported</th>
            </tr>
          </thead>
          <tbody>
            {connections.data.items.map((c) => (
              <tr key={c.id}>
                <td>{c.title}</td>
                <td>{titles[c.dialect] ?? c.dialect}</td>
                <td className={c.address ? 'mono' : ''}>{by(c)}</td>
                <td>
                  {c.importedAt ? moment(c.importedAt) : 'never'}
                  {c.readsBy === 'api' && <Schedule connection={c} />}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <Connect platforms={platforms.data.items} />
    </>
  );
}

function by(c: Connection): string {
  if (c.readsBy === 'sheet') return 'sheets';
  return c.address?.replace(/^https:\/\//, '') ?? 'its interface';
}

function Connect({ platforms }: { platforms: Schema['Platforms']['items'] }) {
  const { client } = useHere();
  const changed = useChanged();
  const [told, setTold] = useState({ title: '', dialect: '', address: '', token: '' });
  const connect = useMutation({
    mutationFn: () =>
      data(api.POST('/clients/{client}/connections', { params: { path: { client: client.id } }, body: told })),
    onSuccess: () => {
      setTold({ title: '', dialect: '', address: '', token: '' });
      changed('connections');
    },
  });
  const set = (some: Partial<typeof told>) => setTold({ ...told, ...some });
  return (
    <form
      className={css.invite}
      aria-label="connect a program of your own"
      onSubmit={(e) => {
        e.preventDefault();
        connect.mutate();
      }}
    >
      <TextInput
        size="xs"
        label="Connect a program of your own"
        placeholder="What it is called"
        required
        value={told.title}
        onChange={(e) => set({ title: e.target.value })}
      />
      <Select
        size="xs"
        aria-label="platform that it speaks for"
        placeholder="Platform"
        searchable
        data={platforms.map((p) => ({ value: p.id, label: p.title }))}
        value={told.dialect || null}
        onChange={(dialect) => set({ dialect: dialect ?? '' })}
      />
      <TextInput
        size="xs"
        w={230}
        aria-label="its address"
        placeholder="https://adapter.example"
        required
        value={told.address}
        onChange={(e) => set({ address: e.target.value.trim() })}
      />
      <TextInput
        size="xs"
        aria-label="its token"
        placeholder="Token"
        type="password"
        autoComplete="off"
        required
        value={told.token}
        onChange={(e) => set({ token: e.target.value })}
      />
      <Button type="submit" size="xs" disabled={told.dialect === ''} loading={connect.isPending}>
        Try and keep it
      </Button>
      {connect.error && <Notice>{connect.error.message}</Notice>}
      {connect.data && (
        <Notice calm>
          It answers, with {many(connect.data.accounts.length, 'account')}:{' '}
          {connect.data.accounts.map((a) => `${a.name} (${many(a.elements, 'element')})`).join(', ')}. Import them in
          Accounts.
        </Notice>
      )}
    </form>
  );
}
