import { Button, Modal, Select, TextInput } from '@mantine/core';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { api, data } from '../../api/client';
import { Notice } from '../../components/Notice';
import { num } from '../../lib/numbers';
import { keyOf, useChanged } from '../../lib/queries';
import { useHere } from '../../lib/useClient';
import css from './agree.module.css';

interface Props {
  name: string;
  word: string;
  others: readonly string[];
  today: string;
  onRetire: (retired: { since: string; use?: string }) => void;
  onClose: () => void;
}

/** What taking a word out of use touches, and the changes that carry it out. */
export function Retire({ name, word, others, today, onRetire, onClose }: Props) {
  const { client, to } = useHere();
  const changed = useChanged();
  const [since, setSince] = useState(today);
  const [use, setUse] = useState<string | null>(null);
  const path = { client: client.id };
  const reach = useQuery({
    queryKey: keyOf('word-reach', client.id, name, word),
    queryFn: () =>
      data(api.POST('/clients/{client}/agreements/words/reach', { params: { path }, body: { key: name, word } })),
  });
  const draft = useMutation({
    mutationFn: () =>
      data(
        api.POST('/clients/{client}/agreements/words/changes', { params: { path }, body: { key: name, word, use } }),
      ),
    onSuccess: () => changed('change'),
  });
  const accounts = reach.data?.accounts ?? [];
  return (
    <Modal opened onClose={onClose} title={`Retire “${word}” of ${name}`} size="md">
      <div className={css.retire}>
        <Select
          size="xs"
          label="What takes its place"
          placeholder="nothing"
          clearable
          data={[...others]}
          value={use}
          onChange={setUse}
          data-autofocus
        />
        <TextInput size="xs" type="date" label="From" value={since} onChange={(e) => setSince(e.target.value)} />
        {reach.error && <Notice>{reach.error.message}</Notice>}
        {reach.data && (
          <ul className={css.reach} aria-label="what it touches">
            <li>
              {reach.data.plan.length === 0
                ? 'The plan does not say it.'
                : 'The plan says it: it will be marked there, with the word that takes its place.'}
            </li>
            {accounts.map((a) => (
              <li key={a.id}>
                <Link to={to(`accounts/${a.id}`)}>{a.name}</Link>: {num(a.texts)} {a.texts === 1 ? 'text' : 'texts'}
              </li>
            ))}
            <li>It arrived {num(reach.data.arrivals)} times in 90 days; that stays as it was.</li>
          </ul>
        )}
        {draft.error && <Notice>{draft.error.message}</Notice>}
        {draft.data && (
          <Notice calm>
            {draft.data.changes.length === 1 ? 'A change is' : `${draft.data.changes.length} changes are`} drafted:{' '}
            {draft.data.changes.map((c) => (
              <Link key={c} to={to(`changes/${c}`)}>
                {c}{' '}
              </Link>
            ))}
          </Notice>
        )}
        <div className={css.acts}>
          {accounts.length > 0 && !draft.data && (
            <Button
              size="xs"
              variant="default"
              disabled={!use}
              loading={draft.isPending}
              onClick={() => draft.mutate()}
            >
              Draft the changes to these texts
            </Button>
          )}
          <Button size="xs" onClick={() => onRetire(use === null ? { since } : { since, use })}>
            Retire it
          </Button>
        </div>
      </div>
    </Modal>
  );
}
