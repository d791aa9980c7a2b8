import { Button } from '@mantine/core';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useMemo, useRef } from 'react';
import { useNavigate } from 'react-router';
import { api, ApiError, data, type Schema } from '../../api/client';
import { Empty, Notice } from '../../components/Notice';
import { useHere } from '../../lib/useClient';
import { useKeys } from '../../lib/useKeys';
import { Assembly } from './Assembly';
import { Levels } from './Levels';
import { Tokens } from './Tokens';
import { TryOut } from './TryOut';
import { Weighed } from './Weighed';
import { Writer } from './Writer';
import { anotherName } from './document';
import css from './platforms.module.css';
import { keyOf, useChanged } from '../../lib/queries';

interface Props {
  id: string;
  /** the document as it is being written; null: it is read */
  writing: string | null;
  onWriting: (text: string | null) => void;
}

export function PlatformView({ id, writing, onWriting }: Props) {
  const { client, to, mayEdit } = useHere();
  const navigate = useNavigate();
  const changed = useChanged();
  const file = useRef<HTMLInputElement>(null);
  const platform = useQuery({
    queryKey: keyOf('platform', client.id, id),
    queryFn: () =>
      data(api.GET('/clients/{client}/platforms/{dialect}', { params: { path: { client: client.id, dialect: id } } })),
    retry: false,
  });
  const save = useMutation({
    mutationFn: (text: string) =>
      data(
        api.PUT('/clients/{client}/platforms', {
          params: { path: { client: client.id } },
          body: { text, revision: platform.data?.own ? platform.data.revision : 0 },
        }),
      ),
    onSuccess: (saved) => {
      changed('platforms');
      onWriting(null);
      void navigate(to(`platforms/${saved.document.id}`));
    },
  });
  const own = platform.data?.own ?? false;
  const accounts = platform.data?.accounts ?? 0;
  const weigh = useMutation({
    mutationFn: (text: string) =>
      data(
        api.POST('/clients/{client}/platforms/consequences', {
          params: { path: { client: client.id } },
          body: { text },
        }),
      ),
    onSuccess: (weighed, text) => weighed.accounts.every((a) => a.breaks === 0) && save.mutate(text),
  });
  const keep = (text: string) => (own && accounts > 0 ? weigh.mutate(text) : save.mutate(text));
  const write = (text: string | null) => {
    weigh.reset();
    onWriting(text);
  };
  const remove = useMutation({
    mutationFn: () =>
      data(
        api.DELETE('/clients/{client}/platforms/{dialect}', { params: { path: { client: client.id, dialect: id } } }),
      ),
    onSuccess: () => {
      changed('platforms');
      void navigate(to('platforms'));
    },
  });
  const yaml = platform.data?.yaml;
  useKeys(
    useMemo(
      () => ({
        w: (e) => {
          if (!mayEdit || yaml === undefined) return;
          e.preventDefault();
          onWriting(own ? yaml : anotherName(yaml));
        },
      }),
      [mayEdit, yaml, own, onWriting],
    ),
  );
  if (platform.error) return <Empty title="No such platform">{platform.error.message}</Empty>;
  if (!platform.data) return <div />;
  const d = platform.data.document;
  const text = writing ?? platform.data.yaml;
  return (
    <>
      <article className={css.body}>
        <header className={css.head}>
          <div>
            <h1>{writing === null ? d.title : own ? `${d.title}, being changed` : 'A platform of your own'}</h1>
            {writing === null && <p>{d.about}</p>}
          </div>
          <div className={css.acts}>
            {writing === null ? (
              <>
                <a href={`/api/v1/clients/${client.id}/platforms/${id}/file?as=yaml`} download>
                  YAML
                </a>
                <a href={`/api/v1/clients/${client.id}/platforms/${id}/file?as=json`} download>
                  JSON
                </a>
                {mayEdit && (
                  <>
                    <Button size="xs" variant="default" onClick={() => file.current?.click()}>
                      Open a file
                    </Button>
                    <input
                      ref={file}
                      type="file"
                      accept=".json,.yaml,.yml"
                      hidden
                      aria-label="a platform's file"
                      onChange={(e) => void e.target.files?.[0]?.text().then(onWriting)}
                    />
                    {own && (
                      <Button
                        size="xs"
                        variant="default"
                        color="red"
                        loading={remove.isPending}
                        onClick={() => remove.mutate()}
                      >
                        Remove
                      </Button>
                    )}
                    <Button
                      size="xs"
                      onClick={() => onWriting(own ? platform.data.yaml : anotherName(platform.data.yaml))}
                      rightSection={<kbd>w</kbd>}
                    >
                      {own ? 'Change it' : 'Write your own from it'}
                    </Button>
                  </>
                )}
              </>
            ) : (
              <>
                <Button size="xs" variant="subtle" onClick={() => write(null)}>
                  Leave it
                </Button>
                <Button size="xs" loading={save.isPending || weigh.isPending} onClick={() => keep(writing)}>
                  Keep it
                </Button>
              </>
            )}
          </div>
        </header>
        {(save.error ?? weigh.error ?? remove.error) && (
          <Notice>{messageOf(save.error ?? weigh.error ?? remove.error)}</Notice>
        )}
        {writing !== null && weigh.data?.accounts.some((a) => a.breaks > 0) && (
          <Weighed accounts={weigh.data.accounts} busy={save.isPending} onKeep={() => save.mutate(writing)} />
        )}
        {writing === null ? <Read document={d} /> : <Writer text={writing} onChange={write} />}
      </article>
      <TryOut
        key={`${id} ${writing === null ? 'read' : 'write'}`}
        text={text}
        document={d}
        onWrite={writing === null ? undefined : write}
      />
    </>
  );
}

function Read({ document }: { document: Schema['DialectDocument'] }) {
  return (
    <>
      <section aria-labelledby="levels">
        <h2 id="levels">Where its texts stand</h2>
        <Levels document={document} />
      </section>
      <section aria-labelledby="assembly">
        <h2 id="assembly">How a click is put together</h2>
        <Assembly document={document} />
      </section>
      <section aria-labelledby="tokens">
        <Tokens document={document} />
      </section>
    </>
  );
}

function messageOf(error: Error | null): string {
  return error instanceof ApiError ? error.message : 'That could not be done. Nothing was lost; try again.';
}
