import { Button, Textarea } from '@mantine/core';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { api, data } from '../../api/client';
import { Notice } from '../../components/Notice';
import css from './changes.module.css';
import { useChanged } from '../../lib/queries';

/** Sends another person's change back, with the reason: nothing is written. */
export function Refusal({ path, onClose }: { path: { client: number; change: number }; onClose: () => void }) {
  const changed = useChanged();
  const [why, setWhy] = useState('');
  const refuse = useMutation({
    mutationFn: () => data(api.POST('/clients/{client}/changes/{change}/refusal', { params: { path }, body: { why } })),
    onSuccess: () => {
      changed('change');
      onClose();
    },
  });
  return (
    <form
      className={css.refusal}
      onKeyDown={(e) => e.key === 'Escape' && onClose()}
      onSubmit={(e) => {
        e.preventDefault();
        if (why.trim() !== '') refuse.mutate();
      }}
    >
      <Textarea
        size="xs"
        label="What is wrong with it"
        autosize
        minRows={2}
        maxLength={2000}
        autoFocus
        value={why}
        onChange={(e) => setWhy(e.target.value)}
      />
      {refuse.error && <Notice>{refuse.error.message}</Notice>}
      <div className={css.act}>
        <Button size="xs" type="submit" disabled={why.trim() === ''} loading={refuse.isPending}>
          Send it back
        </Button>
        <Button size="xs" variant="default" onClick={onClose}>
          Not now
        </Button>
        <span className="quiet">The author reads it, and can work the change out again.</span>
      </div>
    </form>
  );
}
