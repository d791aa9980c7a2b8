import { Button, TextInput } from '@mantine/core';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { api, data } from '../../api/client';
import { Notice } from '../../components/Notice';
import { useChanged } from '../../lib/queries';
import { useHere } from '../../lib/useClient';
import css from './feeds.module.css';

/** Another product list: by its address, or by a file that is put in afterwards. */
export function NewFeed({ isFirst }: { isFirst: boolean }) {
  const { client, to } = useHere();
  const navigate = useNavigate();
  const changed = useChanged();
  const [open, setOpen] = useState(isFirst);
  const [name, setName] = useState('');
  const [address, setAddress] = useState('');
  const make = useMutation({
    mutationFn: () =>
      data(
        api.POST('/clients/{client}/feeds', {
          params: { path: { client: client.id } },
          body: { name, ...(address === '' ? {} : { address, everyMinutes: 60 }) },
        }),
      ),
    onSuccess: (feed) => {
      changed('feeds');
      setOpen(false);
      setName('');
      setAddress('');
      void navigate(to(`feeds/${feed.id}`));
    },
  });
  if (!open) {
    return (
      <button type="button" className={css.link} onClick={() => setOpen(true)}>
        another list …
      </button>
    );
  }
  return (
    <form
      className={css.new}
      aria-label="another product list"
      onSubmit={(event) => {
        event.preventDefault();
        make.mutate();
      }}
    >
      <TextInput size="xs" label="What is it called?" required value={name} onChange={(e) => setName(e.target.value)} />
      <TextInput
        size="xs"
        label="Its address"
        description="none: put in a file"
        placeholder="https://"
        value={address}
        classNames={{ input: 'mono' }}
        onChange={(e) => setAddress(e.target.value)}
      />
      {make.error && <Notice>{make.error.message}</Notice>}
      <Button type="submit" size="compact-sm" loading={make.isPending}>
        Add it
      </Button>
    </form>
  );
}
