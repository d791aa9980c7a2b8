import { keepPreviousData, useInfiniteQuery } from '@tanstack/react-query';
import { api, data } from '../../api/client';
import { keyOf } from '../../lib/queries';
import { useHere } from '../../lib/useClient';
import { RUNNING } from './status';

export interface ChangeFilter {
  /** null: all but those that were dropped */
  state: 'open' | 'over' | 'dropped' | null;
  /** the number of a person */
  by: string | null;
}

/** The client's changes, as many pages as were asked for. */
export function useChanges(filter: ChangeFilter) {
  const { client } = useHere();
  const changes = useInfiniteQuery({
    queryKey: keyOf('changes', client.id, filter),
    queryFn: ({ pageParam }) =>
      data(
        api.GET('/clients/{client}/changes', {
          params: {
            path: { client: client.id },
            query: {
              state: filter.state ?? undefined,
              by: filter.by ?? undefined,
              before: pageParam === null ? undefined : String(pageParam),
            },
          },
        }),
      ),
    initialPageParam: null as number | null,
    getNextPageParam: (last) => last.next,
    placeholderData: keepPreviousData,
    refetchInterval: (q) =>
      q.state.data?.pages.some((p) => p.items.some((c) => RUNNING.includes(c.status))) ? 1000 : false,
  });
  const pages = changes.data?.pages;
  return {
    items: pages?.flatMap((p) => p.items) ?? [],
    dropped: pages?.[0]?.dropped ?? 0,
    people: pages?.[0]?.people ?? [],
    hasMore: changes.hasNextPage,
    loading: changes.isFetchingNextPage,
    more: () => void changes.fetchNextPage(),
    ready: pages !== undefined,
    error: changes.error,
  };
}
