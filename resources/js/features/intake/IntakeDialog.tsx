import { Button, Group, Modal, Select, TextInput } from '@mantine/core';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { api, data, type Schema } from '../../api/client';
import { Bar } from '../../components/Bar';
import { Notice } from '../../components/Notice';
import { num } from '../../lib/numbers';
import { keyOf, useChanged } from '../../lib/queries';
import { useHere } from '../../lib/useClient';
import { send } from './sending';
import css from './intake.module.css';

const NEW = 'new';

/** Files were dropped: of which platform are they, and of which account? */
export function IntakeDialog({
  files,
  accounts,
  suggested,
  onClose,
}: {
  files: File[];
  accounts: Schema['Account'][];
  /** the account that is open */
  suggested?: Schema['Account'];
  onClose: () => void;
}) {
  const { client, to } = useHere();
  const navigate = useNavigate();
  const changed = useChanged();
  const [dialect, setDialect] = useState<string | null>(suggested?.dialect ?? null);
  const [account, setAccount] = useState<string>(suggested ? String(suggested.id) : NEW);
  const [number, setNumber] = useState('');
  const [name, setName] = useState('');
  const [sent, setSent] = useState(0);
  const all = files.reduce((n, f) => n + f.size, 0);
  const platforms = useQuery({
    queryKey: keyOf('platforms', client.id),
    queryFn: () => data(api.GET('/clients/{client}/platforms', { params: { path: { client: client.id } } })),
  });
  const ours = accounts.filter((a) => a.dialect === dialect);
  const isNew = account === NEW;
  const begin = useMutation({
    mutationFn: async () => {
      const intake = await data(
        api.POST('/clients/{client}/intakes', {
          params: { path: { client: client.id } },
          body: isNew ? { dialect: dialect!, number, name } : { dialect: dialect!, account: Number(account) },
        }),
      );
      let before = 0;
      for (const file of files) {
        await send(client.id, intake.id, file, (bytes) => setSent(before + bytes));
        before += file.size;
      }
      return intake.id;
    },
    onSuccess: (id) => {
      changed('intakes');
      void navigate(to(`accounts/in/${id}`));
    },
  });
  const ready = dialect !== null && (!isNew || (number.trim() !== '' && name.trim() !== ''));
  return (
    <Modal opened onClose={onClose} title="Bring sheets in" size="lg">
      <form
        className={css.dialog}
        onSubmit={(e) => {
          e.preventDefault();
          if (ready) begin.mutate();
        }}
      >
        <ul className={css.files}>
          {files.map((f) => (
            <li key={f.name}>
              <span className="mono">{f.name}</span>{' '}
              <span className="quiet">{num(Math.max(1, Math.round(f.size / 1024)))} KB</span>
            </li>
          ))}
        </ul>
        <Select
          label="Platform"
          description="Not among them? Describe it under Platforms first."
          data-autofocus
          searchable
          data={(platforms.data?.items ?? []).map((p) => ({ value: p.id, label: p.title }))}
          value={dialect}
          onChange={(v) => {
            setDialect(v);
            setAccount(NEW);
          }}
        />
        <Select
          label="Account"
          data={[
            ...ours.map((a) => ({ value: String(a.id), label: `${a.name} (${a.externalId})` })),
            { value: NEW, label: 'a new one' },
          ]}
          value={account}
          onChange={(v) => setAccount(v ?? NEW)}
          disabled={dialect === null}
        />
        {isNew && (
          <Group grow align="start">
            <TextInput
              label="Its number"
              description="as the platform shows it"
              value={number}
              onChange={(e) => setNumber(e.target.value)}
            />
            <TextInput
              label="Its name"
              description="as people know it"
              value={name}
              onChange={(e) => setName(e.target.value)}
            />
          </Group>
        )}
        {begin.error && <Notice>{begin.error.message}</Notice>}
        <Group justify="flex-end">
          {begin.isPending && <Bar done={sent} of={all} label="sent" />}
          <Button type="submit" disabled={!ready} loading={begin.isPending}>
            Look at what they are
          </Button>
        </Group>
      </form>
    </Modal>
  );
}
