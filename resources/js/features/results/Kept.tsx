import { Button, Checkbox, Menu, Modal, TextInput } from '@mantine/core';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { api, data } from '../../api/client';
import { Notice } from '../../components/Notice';
import { keyOf, useChanged } from '../../lib/queries';
import { useHere } from '../../lib/useClient';
import { readQuestion, type Question } from './question';
import css from './results.module.css';

/** Questions that were kept, one's own and those that others share; and this one, to be kept. */
export function Kept({ question, onAsk }: { question: Question; onAsk: (question: Question) => void }) {
  const { client } = useHere();
  const changed = useChanged();
  const [naming, setNaming] = useState(false);
  const path = { client: client.id };
  const kept = useQuery({
    queryKey: keyOf('result-views', client.id),
    queryFn: () => data(api.GET('/clients/{client}/results/views', { params: { path } })),
  });
  const forget = useMutation({
    mutationFn: (resultView: number) =>
      api.DELETE('/clients/{client}/results/views/{resultView}', { params: { path: { ...path, resultView } } }),
    onSuccess: () => changed('result-views'),
  });
  const items = kept.data?.items ?? [];
  return (
    <>
      <Menu position="bottom-end" width={300}>
        <Menu.Target>
          <button type="button" className={css.link}>
            kept questions
          </button>
        </Menu.Target>
        <Menu.Dropdown>
          {items.length === 0 && <Menu.Label>none is kept yet</Menu.Label>}
          {items.map((v) => (
            <Menu.Item
              key={v.id}
              onClick={() => onAsk(readQuestion(JSON.stringify(v.query)))}
              rightSection={<span className="quiet">{v.isMine ? (v.isShared ? 'shared' : '') : 'another’s'}</span>}
            >
              {v.name}
            </Menu.Item>
          ))}
          <Menu.Divider />
          <Menu.Item onClick={() => setNaming(true)}>keep this one …</Menu.Item>
          {items
            .filter((v) => v.isMine)
            .map((v) => (
              <Menu.Item key={v.id} onClick={() => forget.mutate(v.id)}>
                let go of “{v.name}”
              </Menu.Item>
            ))}
        </Menu.Dropdown>
      </Menu>
      {naming && <Naming question={question} onClose={() => setNaming(false)} />}
    </>
  );
}

function Naming({ question, onClose }: { question: Question; onClose: () => void }) {
  const { client } = useHere();
  const changed = useChanged();
  const [name, setName] = useState('');
  const [isShared, setShared] = useState(false);
  const keep = useMutation({
    mutationFn: () =>
      data(
        api.POST('/clients/{client}/results/views', {
          params: { path: { client: client.id } },
          body: { name: name.trim(), query: { ...question }, isShared },
        }),
      ),
    onSuccess: () => {
      changed('result-views');
      onClose();
    },
  });
  return (
    <Modal opened onClose={onClose} title="Keep this question">
      <form
        onSubmit={(event) => {
          event.preventDefault();
          keep.mutate();
        }}
      >
        <TextInput
          label="name"
          description="one of the same name is replaced"
          required
          maxLength={120}
          value={name}
          onChange={(e) => setName(e.target.value)}
          data-autofocus
        />
        <Checkbox
          mt="sm"
          label={`all of ${client.name} see it`}
          checked={isShared}
          onChange={(e) => setShared(e.target.checked)}
        />
        {keep.error && <Notice>{keep.error.message}</Notice>}
        <Button type="submit" mt="md" size="xs" loading={keep.isPending} disabled={name.trim() === ''}>
          Keep it
        </Button>
      </form>
    </Modal>
  );
}
