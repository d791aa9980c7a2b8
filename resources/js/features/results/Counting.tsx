import { Button, Drawer, NativeSelect, NumberInput, Textarea } from '@mantine/core';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { api, data, type Schema } from '../../api/client';
import { Notice } from '../../components/Notice';
import { keyOf, useChanged } from '../../lib/queries';
import { useHere } from '../../lib/useClient';
import { readReferrers, writeReferrers } from './counting';
import css from './results.module.css';

const MODELS = [
  { value: 'last', label: 'the last session that says where it came from' },
  { value: 'first', label: 'the first session that says where it came from' },
  { value: 'even', label: 'all sessions that say where they came from, each the same share' },
];

/** How what arrives is counted; what has arrived is counted anew when that changes. */
export function Counting({ onClose }: { onClose: () => void }) {
  const { client } = useHere();
  const counting = useQuery({
    queryKey: keyOf('counting', client.id),
    queryFn: () => data(api.GET('/clients/{client}/counting', { params: { path: { client: client.id } } })),
  });
  return (
    <Drawer opened onClose={onClose} position="right" size={460} title="How this is counted">
      {counting.error && <Notice>{counting.error.message}</Notice>}
      {counting.data && <Form counting={counting.data} onClose={onClose} />}
    </Drawer>
  );
}

function Form({ counting, onClose }: { counting: Schema['Counting']; onClose: () => void }) {
  const { client, mayEdit } = useHere();
  const changed = useChanged();
  const [is, setIs] = useState(counting);
  const [referrers, setReferrers] = useState(writeReferrers(counting.referrers));
  const [stations, setStations] = useState(counting.stations.join('\n'));
  const read = readReferrers(referrers);
  const keep = useMutation({
    mutationFn: () =>
      data(
        api.PUT('/clients/{client}/counting', {
          params: { path: { client: client.id } },
          body: {
            ...is,
            referrers: 'referrers' in read ? read.referrers : [],
            stations: stations.split(/[\s,]+/).filter((s) => s !== ''),
          },
        }),
      ),
    onSuccess: () => {
      changed('counting');
      onClose();
    },
  });
  const set = (some: Partial<Schema['Counting']>) => setIs({ ...is, ...some });
  return (
    <form
      className={css.counting}
      onSubmit={(event) => {
        event.preventDefault();
        keep.mutate();
      }}
    >
      <fieldset disabled={!mayEdit}>
        <NativeSelect
          label="A conversion counts for"
          data={MODELS}
          value={is.attribution.model}
          onChange={(e) =>
            set({
              attribution: {
                ...is.attribution,
                model: e.target.value as Schema['Counting']['attribution']['model'],
              },
            })
          }
        />
        <NumberInput
          label="of those that began at most so many days before"
          min={1}
          max={400}
          value={is.attribution.days}
          onChange={(days) => set({ attribution: { ...is.attribution, days: Number(days) } })}
        />
        <Textarea
          label="What hosts are called that people come from"
          description="a line each: host, source, medium; of two, the host is the source. The first that fits counts"
          autosize
          minRows={4}
          maxRows={12}
          value={referrers}
          error={'wrong' in read ? `line ${read.wrong} is not a host with one or two words behind it` : undefined}
          onChange={(e) => setReferrers(e.target.value)}
          classNames={{ input: 'mono' }}
        />
        <Textarea
          label="Hosts on the way, that nobody comes from"
          description="payment, sign-in: a line each"
          autosize
          minRows={2}
          value={stations}
          onChange={(e) => setStations(e.target.value)}
          classNames={{ input: 'mono' }}
        />
        <NumberInput
          label="Platforms say more later of the last so many days"
          min={0}
          max={30}
          value={is.provisional}
          onChange={(n) => set({ provisional: Number(n) })}
        />
        <NumberInput
          label="Raw records are kept for so many days"
          min={30}
          max={4000}
          value={is.retention}
          onChange={(n) => set({ retention: Number(n) })}
        />
      </fieldset>
      {keep.error && <Notice>{keep.error.message}</Notice>}
      {mayEdit ? (
        <Button type="submit" size="xs" loading={keep.isPending} disabled={'wrong' in read}>
          Count like this
        </Button>
      ) : (
        <p className="quiet">Editors of {client.name} change it.</p>
      )}
    </form>
  );
}
