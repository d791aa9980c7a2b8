import { Button, Select, TextInput } from '@mantine/core';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { data, type Schema } from '../../api/client';
import { Notice } from '../../components/Notice';
import { Form } from '../session/SignIn';

type Body = Schema['ClientBody'];

const ZONES = Intl.supportedValuesOf('timeZone');
const MONEY = Intl.supportedValuesOf('currency');

/** A client: what it is called, and in whose time and money it counts. */
export function ClientForm({
  is,
  words,
  on,
  onDone,
}: {
  is?: Body;
  /** what its key says */
  words: string;
  on: (body: Body) => Promise<{ data?: Schema['ClientData'] }>;
  onDone: (client: Schema['ClientData']) => void;
}) {
  const [name, setName] = useState(is?.name ?? '');
  const [timeZone, setTimeZone] = useState(is?.timeZone ?? Intl.DateTimeFormat().resolvedOptions().timeZone);
  const [currency, setCurrency] = useState(is?.currency ?? 'EUR');
  const keep = useMutation({ mutationFn: () => data(on({ name, timeZone, currency })), onSuccess: onDone });
  return (
    <Form on={keep.mutate}>
      <TextInput
        label="Name"
        required
        maxLength={100}
        value={name}
        onChange={(e) => setName(e.target.value)}
        data-autofocus
      />
      <Select
        label="Time zone"
        description="where its days begin"
        searchable
        allowDeselect={false}
        data={ZONES.includes(timeZone) ? ZONES : [timeZone, ...ZONES]}
        limit={60}
        value={timeZone}
        onChange={(v) => v && setTimeZone(v)}
      />
      <Select
        label="Currency"
        searchable
        allowDeselect={false}
        data={MONEY}
        limit={60}
        value={currency}
        onChange={(v) => v && setCurrency(v)}
      />
      {keep.error && <Notice>{keep.error.message}</Notice>}
      <Button type="submit" disabled={name.trim() === ''} loading={keep.isPending}>
        {words}
      </Button>
    </Form>
  );
}
