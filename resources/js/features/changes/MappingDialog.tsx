import { Button, Modal, TextInput } from '@mantine/core';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { api, data } from '../../api/client';
import { Notice } from '../../components/Notice';
import { useHere } from '../../lib/useClient';
import css from './changes.module.css';
import { useChanged } from '../../lib/queries';

const COLUMNS: [string, string, string][] = [
  ['id', 'Number', 'the platform’s number of the element; needed'],
  ['name', 'Name', ''],
  ['level', 'Level', ''],
  ['template', 'Template', ''],
  ['suffix', 'Suffix', ''],
  ['landing', 'Landing URL', ''],
  ['custom', 'Custom parameters', 'what stands before their names'],
  ['result', 'Outcome', 'in the result sheet; without it, what holds our text is taken'],
  ['message', 'Remark', 'in the result sheet'],
];

/** How a platform's sheets name their columns: defined once, used for every sheet. */
export function MappingDialog({ dialect, onClose }: { dialect: string; onClose: () => void }) {
  const { client } = useHere();
  const changed = useChanged();
  const [name, setName] = useState('');
  const [columns, setColumns] = useState<Record<string, string>>({});
  const keep = useMutation({
    mutationFn: () =>
      data(
        api.POST('/clients/{client}/mappings', {
          params: { path: { client: client.id } },
          body: {
            name,
            dialect,
            columns: Object.fromEntries(Object.entries(columns).filter(([, v]) => v.trim() !== '')),
          },
        }),
      ),
    onSuccess: () => {
      changed('mappings');
      onClose();
    },
  });
  return (
    <Modal opened onClose={onClose} title="How the sheet names its columns" size="md">
      <form
        className={css.mapping}
        onSubmit={(e) => {
          e.preventDefault();
          keep.mutate();
        }}
      >
        <TextInput
          size="xs"
          label="Called"
          required
          maxLength={100}
          value={name}
          onChange={(e) => setName(e.target.value)}
          data-autofocus
        />
        {COLUMNS.map(([key, label, help]) => (
          <TextInput
            key={key}
            size="xs"
            label={label}
            description={help || undefined}
            required={key === 'id'}
            maxLength={100}
            placeholder="heading of the column; empty: there is none"
            value={columns[key] ?? ''}
            onChange={(e) => setColumns({ ...columns, [key]: e.target.value })}
          />
        ))}
        {keep.error && <Notice>{keep.error.message}</Notice>}
        <Button type="submit" loading={keep.isPending}>
          Keep the mapping
        </Button>
      </form>
    </Modal>
  );
}
