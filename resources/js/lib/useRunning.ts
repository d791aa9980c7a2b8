import { useQuery } from '@tanstack/react-query';
import { api, data } from '../api/client';
import { keyOf } from './queries';
import { useHere } from './useClient';

/** Long work that is going on, and what waits for a decision; asked for often while there is some. */
export function useRunning() {
  const { client } = useHere();
  return useQuery({
    queryKey: keyOf('running', client.id),
    queryFn: () => data(api.GET('/clients/{client}/running', { params: { path: { client: client.id } } })),
    refetchInterval: (q) =>
      q.state.data && q.state.data.imports.length + q.state.data.changes.length > 0 ? 700 : 4000,
  });
}
