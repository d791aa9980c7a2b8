import { useQuery } from '@tanstack/react-query';
import { api, data } from '../api/client';
import { keyOf } from './queries';
import { useHere } from './useClient';

/** The client's plan as it counts; while it is edited, it is asked for once. */
export function usePlan({ isEdited = false } = {}) {
  const { client } = useHere();
  return useQuery({
    queryKey: keyOf('plan', client.id),
    queryFn: () => data(api.GET('/clients/{client}/plan', { params: { path: { client: client.id } } })),
    ...(isEdited ? { staleTime: Infinity } : {}),
  });
}
