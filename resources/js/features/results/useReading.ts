import { useQuery } from '@tanstack/react-query';
import { api, data, type Schema } from '../../api/client';
import { keyOf } from '../../lib/queries';

export type Reading = Schema['Reading'];

/** Days as they were meant: begun where they are not read yet, and looked at until they are. */
export function useReading(
  client: number,
  days: { from: string; to: string },
  names: 'today' | 'then' | undefined,
): { reading: Reading | undefined; error: Error | null } {
  const body = { from: days.from, to: days.to, names: names ?? 'today' };
  const begun = useQuery({
    queryKey: keyOf('reading', client, body),
    queryFn: () => data(api.POST('/clients/{client}/readings', { params: { path: { client } }, body })),
    enabled: names !== undefined,
    staleTime: 1_800_000,
    retry: false,
  });
  const id = begun.data?.id ?? 0;
  const isOver = begun.data?.status === 'done' || begun.data?.status === 'failed';
  const now = useQuery({
    queryKey: keyOf('reading', client, id),
    queryFn: () => data(api.GET('/clients/{client}/readings/{reading}', { params: { path: { client, reading: id } } })),
    enabled: names !== undefined && id > 0 && !isOver,
    refetchInterval: (query) => (/queued|running/.test(query.state.data?.status ?? 'queued') ? 1000 : false),
  });
  if (names === undefined) return { reading: undefined, error: null };
  return { reading: isOver ? begun.data : (now.data ?? begun.data), error: begun.error ?? now.error };
}
