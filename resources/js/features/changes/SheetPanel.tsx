import { Button, FileButton, Select } from '@mantine/core';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { api, data, type Schema } from '../../api/client';
import { Notice } from '../../components/Notice';
import { useAccounts } from '../../lib/useAccounts';
import { useHere } from '../../lib/useClient';
import { MappingDialog } from './MappingDialog';
import css from './changes.module.css';
import { keyOf, useChanged } from '../../lib/queries';

/** A change that goes out as a sheet: take it, bring it to the platform, bring the result back. */
export function SheetPanel({ change }: { change: Schema['Change'] }) {
  const { client } = useHere();
  const changed = useChanged();
  const [chosen, setChosen] = useState<number | null>(null);
  const [defining, setDefining] = useState(false);
  const accounts = useAccounts();
  const mappings = useQuery({
    queryKey: keyOf('mappings', client.id),
    queryFn: () => data(api.GET('/clients/{client}/mappings', { params: { path: { client: client.id } } })),
  });
  const dialect = accounts.data?.items.find((a) => a.id === change.account.id)?.dialect;
  const fit = mappings.data?.items.filter((m) => m.dialect === dialect) ?? [];
  const mapping = fit.find((m) => m.id === chosen) ?? fit[0];
  const read = useMutation({
    mutationFn: async (file: File) => {
      const bytes = new Uint8Array(await file.arrayBuffer());
      let text = '';
      for (let i = 0; i < bytes.length; i += 32768) text += String.fromCharCode(...bytes.subarray(i, i + 32768));
      return data(
        api.POST('/clients/{client}/changes/{change}/sheet', {
          params: { path: { client: client.id, change: change.id } },
          body: { mapping: mapping!.id, name: file.name, content: btoa(text) },
        }),
      );
    },
    onSettled: () => {
      changed('change');
    },
  });
  const sent = change.progress.sent ?? 0;
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
      {read.data && (
        <Notice calm>
          {read.data.taken} taken, {read.data.refused} refused. {read.data.problems.join(' ')}
        </Notice>
      )}
      {defining && dialect && <MappingDialog dialect={dialect} onClose={() => setDefining(false)} />}
    </section>
  );
}
