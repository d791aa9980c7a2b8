import { useMutation, useQuery } from '@tanstack/react-query';
import { api, data, type Schema } from '../../api/client';
import { fileAsBase64 } from '../../lib/base64';
import { keyOf, useChanged } from '../../lib/queries';
import { useHere } from '../../lib/useClient';

export type Tracker = Schema['Tracker'];
export type Suggested = Schema['Trackers']['suggested'][number];

type Input = Schema['TrackerInput'];

/** A tracker as it stands in the form; id null: a new one. */
export interface Draft extends Input {
  id: number | null;
}

export const EMPTY: Draft = { id: null, host: '', parameter: '', forwards: true, adds: [], revision: 0 };

export function useTrackers() {
  const { client } = useHere();
  return useQuery({
    queryKey: keyOf('trackers', client.id),
    queryFn: () => data(api.GET('/clients/{client}/trackers', { params: { path: { client: client.id } } })),
  });
}

export interface Brought {
  days: number;
  leftOut: Record<string, number>;
}

/** Brings a sheet of how many clicks a tracker sent on. */
export function useCounts(tracker: Tracker) {
  const { client } = useHere();
  const changed = useChanged();
  return useMutation<Brought, Error, File>({
    mutationFn: async (file) =>
      data(
        api.PUT('/clients/{client}/trackers/{tracker}/counts', {
          params: { path: { client: client.id, tracker: tracker.id } },
          body: { name: file.name, content: await fileAsBase64(file) },
        }),
      ),
    onSuccess: () => changed('trackers'),
  });
}

/** Keeps a tracker, or forgets it: the ads are proven anew by that. */
export function useKeep(onDone: (kept: Tracker | null) => void) {
  const { client } = useHere();
  const changed = useChanged();
  const done = (kept: Tracker | null) => {
    changed('trackers', 'proof', 'work');
    onDone(kept);
  };
  const keep = useMutation({
    mutationFn: ({ id, ...body }: Draft) =>
      id === null
        ? data(api.POST('/clients/{client}/trackers', { params: { path: { client: client.id } }, body }))
        : data(
            api.PUT('/clients/{client}/trackers/{tracker}', {
              params: { path: { client: client.id, tracker: id } },
              body,
            }),
          ),
    onSuccess: (kept) => done(kept ?? null),
  });
  const forget = useMutation({
    mutationFn: (tracker: number) =>
      api.DELETE('/clients/{client}/trackers/{tracker}', { params: { path: { client: client.id, tracker } } }),
    onSuccess: () => done(null),
  });
  return { keep, forget };
}
