import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api, data, type Schema } from '../../api/client';
import { keyOf, useChanged } from '../../lib/queries';
import { useHere } from '../../lib/useClient';

type Kind = Schema['AgreementKind'];

/** What is agreed on, as it is being edited: nothing is kept before it is saved. */
export function useAgreement<Document extends object>(kind: Kind) {
  const { client } = useHere();
  const queries = useQueryClient();
  const changed = useChanged();
  const path = { client: client.id, kind };
  const [edited, setEdited] = useState<{ revision: number; document: Document } | null>(null);
  const query = useQuery({
    queryKey: keyOf('agreed', client.id, kind),
    queryFn: () => data(api.GET('/clients/{client}/agreements/{kind}', { params: { path } })),
    staleTime: Infinity,
  });
  const saved = query.data;
  const document = edited?.document ?? (saved?.document as Document | undefined);
  const save = useMutation({
    mutationFn: (fromDay: string) =>
      data(
        api.PUT('/clients/{client}/agreements/{kind}', {
          params: { path },
          body: { revision: edited!.revision, fromDay, document: edited!.document as Record<string, unknown> },
        }),
      ),
    onSuccess: (now) => {
      queries.setQueryData(keyOf('agreed', client.id, kind), now);
      setEdited(null);
      changed('agreed');
    },
  });
  const bringBack = useMutation({
    mutationFn: (revision: number) =>
      data(api.GET('/clients/{client}/agreements/{kind}', { params: { path, query: { revision } } })),
    onSuccess: (old) => setEdited({ revision: saved!.revision, document: old.document as Document }),
  });
  return {
    saved,
    document,
    error: query.error,
    isEdited: edited !== null && JSON.stringify(edited.document) !== JSON.stringify(saved?.document),
    set: (next: Document) => setEdited({ revision: edited?.revision ?? saved!.revision, document: next }),
    undo: () => setEdited(null),
    save,
    bringBack,
  };
}
