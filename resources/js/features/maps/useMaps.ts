import { useMutation, useQuery } from '@tanstack/react-query';
import { api, data, type Schema } from '../../api/client';
import { keyOf, useChanged } from '../../lib/queries';
import { useHere } from '../../lib/useClient';

export type KeptMap = Schema['KeptSheetMap'];

/** What the columns of a platform's sheets mean, as it was kept, the newest first. */
export function useMaps(dialect: string | undefined): KeptMap[] {
  const { client } = useHere();
  const maps = useQuery({
    queryKey: keyOf('sheet-maps', client.id),
    queryFn: () => data(api.GET('/clients/{client}/sheet-maps', { params: { path: { client: client.id } } })),
  });
  return maps.data?.items.filter((m) => m.dialect === dialect) ?? [];
}

/** Keeps a map, from a file or as it was said. */
export function useKeeping(onKept: () => void) {
  const { client } = useHere();
  const changed = useChanged();
  return useMutation({
    mutationFn: (body: Schema['SheetMapDocument']) =>
      data(api.POST('/clients/{client}/sheet-maps', { params: { path: { client: client.id } }, body })),
    onSuccess: () => {
      changed('sheet-maps');
      onKept();
    },
  });
}

export function useForgetting() {
  const { client } = useHere();
  const changed = useChanged();
  return useMutation({
    mutationFn: (map: number) =>
      api.DELETE('/clients/{client}/sheet-maps/{sheetMap}', {
        params: { path: { client: client.id, sheetMap: map } },
      }),
    onSuccess: () => changed('sheet-maps'),
  });
}
