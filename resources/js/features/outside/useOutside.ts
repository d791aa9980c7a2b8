import { useInfiniteQuery, useMutation } from '@tanstack/react-query';
import { useNavigate } from 'react-router';
import { api, data, type Schema } from '../../api/client';
import { keyOf, useChanged } from '../../lib/queries';
import { useHere } from '../../lib/useClient';

export type OutsideChange = Schema['OutsideChange'];
export type OutsideAccount = Schema['Outside']['accounts'][number];

/** What changed without us, page by page: what waits for a decision, or what was decided. */
export function useOutside(decided: boolean) {
  const { client } = useHere();
  const pages = useInfiniteQuery({
    queryKey: keyOf('outside', client.id, decided),
    queryFn: ({ pageParam }) =>
      data(
        api.GET('/clients/{client}/outside', {
          params: {
            path: { client: client.id },
            query: { decided: decided ? '1' : '0', offset: String(pageParam) },
          },
        }),
      ),
    initialPageParam: 0,
    getNextPageParam: (last, all) => (last.more ? all.reduce((n, p) => n + p.items.length, 0) : undefined),
  });
  const accounts = pages.data?.pages.at(-1)?.accounts ?? [];
  const items = pages.data?.pages.flatMap((p) => p.items) ?? [];
  return { pages, items, accounts };
}

/** Accepts, puts back or thinks again; items null: all that waits of the account. */
export function useDecide() {
  const { client, to } = useHere();
  const changed = useChanged();
  const navigate = useNavigate();
  return useMutation({
    mutationFn: async ({ verb, account, items }: Decision): Promise<number | null> => {
      const call = {
        params: { path: { client: client.id, account } },
        body: items ? { items: [...items] } : {},
      };
      if (verb === 'put back') {
        return (await data(api.POST('/clients/{client}/accounts/{account}/outside/return', call))).id;
      }
      const accepts = '/clients/{client}/accounts/{account}/outside/acceptance' as const;
      await (verb === 'accept' ? api.POST(accepts, call) : api.DELETE(accepts, call));
      return null;
    },
    onSuccess: (change) => {
      changed('outside', 'work');
      if (change !== null) {
        changed('change');
        void navigate(to(`changes/${change}`));
      }
    },
  });
}

export interface Decision {
  verb: 'accept' | 'put back' | 'think again';
  account: number;
  items: readonly number[] | null;
}
