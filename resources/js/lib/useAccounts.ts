import { useQuery } from '@tanstack/react-query';
import { api, data } from '../api/client';
import { useHere } from './useClient';

/** The client's accounts, with how many ads of each keep the plan. */
export function useAccounts(enabled = true) {
  const { client } = useHere();
  return useQuery({
    queryKey: ['accounts', client.id],
    queryFn: () => data(api.GET('/clients/{client}/accounts', { params: { path: { client: client.id } } })),
    enabled,
  });
}
