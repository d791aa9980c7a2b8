import { FileButton, Menu } from '@mantine/core';
import { useMutation, useQuery } from '@tanstack/react-query';
import { api, data, type Schema } from '../../api/client';
import { moment } from '../../lib/moments';
import { keyOf } from '../../lib/queries';
import { useHere } from '../../lib/useClient';
import { fileAsBase64 } from '../../lib/base64';
import css from './plan.module.css';

type Document = Schema['PlanDocument'];

interface Props {
  revision: number;
  isEdited: boolean;
  mayEdit: boolean;
  onLoaded: (document: Document) => void;
  onTrouble: (message: string) => void;
}

/** Revisions that were, and the plan as a file, out and in. */
export function History({ revision, isEdited, mayEdit, onLoaded, onTrouble }: Props) {
  const { client } = useHere();
  const path = { client: client.id };
  const revisions = useQuery({
    queryKey: keyOf('plan-revisions', client.id, revision),
    queryFn: () => data(api.GET('/clients/{client}/plan/revisions', { params: { path } })),
  });
  const load = useMutation({
    mutationFn: (wanted: number) =>
      data(api.GET('/clients/{client}/plan/revisions/{revision}', { params: { path: { ...path, revision: wanted } } })),
    onSuccess: (old) => onLoaded(old.document),
    onError: (e) => onTrouble(e.message),
  });
  const bring = useMutation({
    mutationFn: async (file: File) =>
      data(
        api.POST('/clients/{client}/plan/file', {
          params: { path },
          body: { name: file.name, content: await fileAsBase64(file) },
        }),
      ),
    onSuccess: (read) => onLoaded(read.document),
    onError: (e) => onTrouble(e.message),
  });
  return (
    <>
      <Menu position="bottom-end">
        <Menu.Target>
          <button type="button" className={css.revision}>
            revision {revision}
            {isEdited && ', changed'}
          </button>
        </Menu.Target>
        <Menu.Dropdown>
          {revisions.data?.items.map((r) => (
            <Menu.Item key={r.revision} disabled={!mayEdit} onClick={() => load.mutate(r.revision)}>
              {r.revision === revision ? 'Load' : 'Bring back'} revision {r.revision}
              <span className="quiet">
                {r.fromDay && ` · from ${r.fromDay}`}
                {r.savedAt && ` · ${moment(r.savedAt)}`}
                {r.by && ` · ${r.by}`}
              </span>
            </Menu.Item>
          ))}
        </Menu.Dropdown>
      </Menu>
      <Menu position="bottom-end">
        <Menu.Target>
          <button type="button" className={css.revision}>
            as a file
          </button>
        </Menu.Target>
        <Menu.Dropdown>
          {(['xlsx', 'ods', 'csv', 'yaml', 'json'] as const).map((as) => (
            <Menu.Item key={as} component="a" href={`/api/v1/clients/${client.id}/plan/file?as=${as}`} download>
              Take it as {as.toUpperCase()}
            </Menu.Item>
          ))}
          {mayEdit && (
            <FileButton accept=".json,.yaml,.yml,.csv,.tsv,.xlsx,.ods" onChange={(file) => file && bring.mutate(file)}>
              {(props) => (
                <Menu.Item {...props} closeMenuOnClick={false}>
                  Bring one in …
                </Menu.Item>
              )}
            </FileButton>
          )}
        </Menu.Dropdown>
      </Menu>
    </>
  );
}
