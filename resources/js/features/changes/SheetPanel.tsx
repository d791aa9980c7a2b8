import { Button, FileButton, Select } from '@mantine/core';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { api, data, type Schema } from '../../api/client';
import { Notice } from '../../components/Notice';
import { useAccounts } from '../../lib/useAccounts';
import { useHere } from '../../lib/useClient';
import { num } from '../../lib/numbers';
import { base64 } from '../intake/sending';
import { MappingDialog } from './MappingDialog';
import css from './changes.module.css';
import { keyOf, useChanged } from '../../lib/queries';

/** A result sheet of the platform, brought back. */
function useResult(change: Schema['Change'], mapping?: number) {
  const { client } = useHere();
  const changed = useChanged();
  return useMutation({
    mutationFn: async (file: File) =>
      data(
        api.POST('/clients/{client}/changes/{change}/sheet', {
          params: { path: { client: client.id, change: change.id } },
          body: { mapping, name: file.name, content: base64(new Uint8Array(await file.arrayBuffer())) },
        }),
      ),
    onSettled: () => changed('change'),
  });
}

/** A change of an account that came as sheets: it goes out in their shape. */
function AsItCame({ change, sent }: { change: Schema['Change']; sent: number }) {
  const { client } = useHere();
  const changed = useChanged();
  const path = { client: client.id, change: change.id };
  const read = useResult(change);
  const taken = useMutation({
    mutationFn: () => data(api.POST('/clients/{client}/changes/{change}/sheet/taken', { params: { path } })),
    onSettled: () => changed('change'),
  });
  const told = read.data ?? taken.data;
  return (
    <section className={css.sheet} aria-label="the sheet">
      <p>
        {change.account.name} came as sheets, so this goes out in their shape: their headings, only what changes.{' '}
        <b>{num(sent)}</b> {sent === 1 ? 'text waits' : 'texts wait'} to be uploaded to the platform.
      </p>
      <div className={css.sheetActs}>
        <Button size="xs" component="a" href={`/api/v1/clients/${client.id}/changes/${change.id}/sheet`} download>
          Take the sheet to upload
        </Button>
        <Button size="xs" variant="default" loading={taken.isPending} onClick={() => taken.mutate()}>
          The platform has taken all of it
        </Button>
        <FileButton accept=".csv,.tsv,.txt,.xlsx,.ods" onChange={(file) => file && read.mutate(file)}>
          {(props) => (
            <Button {...props} size="xs" variant="default" loading={read.isPending}>
              Bring its result in
            </Button>
          )}
        </FileButton>
      </div>
      {(read.error ?? taken.error) && <Notice>{(read.error ?? taken.error)!.message}</Notice>}
      {told && <Told told={told} />}
    </section>
  );
}

function Told({ told }: { told: Schema['SheetRead'] }) {
  return (
    <Notice calm>
      {num(told.taken)} taken, {num(told.refused)} refused. {told.problems.join(' ')}
    </Notice>
  );
}

/** A change that goes out as a sheet: take it, bring it to the platform, bring the result back. */
export function SheetPanel({ change }: { change: Schema['Change'] }) {
  const { client } = useHere();
  const [chosen, setChosen] = useState<number | null>(null);
  const [defining, setDefining] = useState(false);
  const accounts = useAccounts();
  const mappings = useQuery({
    queryKey: keyOf('mappings', client.id),
    queryFn: () => data(api.GET('/clients/{client}/mappings', { params: { path: { client: client.id } } })),
  });
  const account = accounts.data?.items.find((a) => a.id === change.account.id);
  const dialect = account?.dialect;
  const fit = mappings.data?.items.filter((m) => m.dialect === dialect) ?? [];
  const mapping = fit.find((m) => m.id === chosen) ?? fit[0];
  const read = useResult(change, mapping?.id);
  const sent = change.progress.sent ?? 0;
  if (account?.readsBy === 'sheet') return <AsItCame change={change} sent={sent} />;
  return (
    <section className={css.sheet} aria-label="the sheet">
      <p>
        {change.account.name} takes texts in a sheet only. <b>{sent}</b> {sent === 1 ? 'text waits' : 'texts wait'} for
        the platform’s answer: take the sheet there, then bring its result back here.
      </p>
      <div className={css.sheetActs}>
        <Select
          size="xs"
          w={190}
          aria-label="mapping of the columns"
          placeholder="No mapping yet"
          data={fit.map((m) => ({ value: String(m.id), label: m.name }))}
          value={mapping ? String(mapping.id) : null}
          onChange={(v) => setChosen(v === null ? null : Number(v))}
        />
        <Button size="xs" variant="subtle" onClick={() => setDefining(true)}>
          Define a mapping
        </Button>
        {mapping &&
          (['csv', 'tsv', 'xlsx'] as const).map((as) => (
            <Button
              key={as}
              size="xs"
              variant="default"
              component="a"
              href={`/api/v1/clients/${client.id}/changes/${change.id}/sheet?mapping=${mapping.id}&as=${as}`}
              download
            >
              Take it as {as.toUpperCase()}
            </Button>
          ))}
        <FileButton accept=".csv,.tsv,.txt,.xlsx" onChange={(file) => file && read.mutate(file)} resetRef={undefined}>
          {(props) => (
            <Button {...props} size="xs" disabled={!mapping} loading={read.isPending}>
              Bring the result in
            </Button>
          )}
        </FileButton>
      </div>
      {read.error && <Notice>{read.error.message}</Notice>}
      {read.data && <Told told={read.data} />}
      {defining && dialect && <MappingDialog dialect={dialect} onClose={() => setDefining(false)} />}
    </section>
  );
}
