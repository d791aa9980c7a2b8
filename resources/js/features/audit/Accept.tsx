import { Button, Modal, Textarea, TextInput } from '@mantine/core';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { api, data } from '../../api/client';
import { Notice } from '../../components/Notice';
import { useChanged } from '../../lib/queries';
import { useHere } from '../../lib/useClient';
import type { Trouble } from './words';

const inDays = (days: number) => new Date(Date.now() + days * 86_400_000).toISOString().slice(0, 10);

/** Why a trouble is to stay as it is, and until when: it is out of the way that long. */
export function Accept({ trouble, onClose }: { trouble: Trouble; onClose: () => void }) {
  const { client } = useHere();
  const changed = useChanged();
  const [why, setWhy] = useState(trouble.accepted?.why ?? '');
  const [until, setUntil] = useState(trouble.accepted?.until ?? inDays(28));
  const accept = useMutation({
    mutationFn: () =>
      data(
        api.PUT('/clients/{client}/troubles/{trouble}/accepted', {
          params: { path: { client: client.id, trouble: trouble.id } },
          body: { until, why: why.trim() },
        }),
      ),
    onSuccess: () => {
      changed('troubles');
      onClose();
    },
  });
  return (
    <Modal opened onClose={onClose} title="Let it be">
      <form
        onSubmit={(event) => {
          event.preventDefault();
          accept.mutate();
        }}
      >
        <p style={{ marginTop: 0 }}>{trouble.what}</p>
        <Textarea
          label="why it may stay as it is"
          required
          maxLength={500}
          value={why}
          onChange={(e) => setWhy(e.target.value)}
          data-autofocus
        />
        <TextInput
          mt="sm"
          type="date"
          label="until"
          required
          min={inDays(1)}
          value={until}
          onChange={(e) => setUntil(e.target.value)}
        />
        {accept.error && <Notice>{accept.error.message}</Notice>}
        <Button type="submit" mt="md" size="xs" loading={accept.isPending} disabled={why.trim() === ''}>
          Let it be until then
        </Button>
      </form>
    </Modal>
  );
}
