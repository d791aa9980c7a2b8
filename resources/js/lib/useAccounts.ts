import { useQuery } from '@tanstack/react-query';
import { api, data } from '../api/client';
import { keyOf } from './queries';
import { useHere } from './useClient';

/** The client's accounts, with how many ads of each keep the plan; watched while they are being proven. */
export function useAccounts(enabled = true) {
  const { client } = useHere();
  return useQuery({
    queryKey: keyOf('accounts', client.id),
    queryFn: () => data(api.GET('/clients/{client}/accounts', { params: { path: { client: client.id } } })),
    refetchInterval: (q) => (q.state.data?.items.some((a) => a.proving) ? 1500 : false),
    enabled,
  });
}
