import { Button, Textarea } from '@mantine/core';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { api, data } from '../../api/client';
import { Notice } from '../../components/Notice';
import { useHere } from '../../lib/useClient';
import { written } from './writing';
import css from './platforms.module.css';

interface Node {
  level: string;
  type?: string;
  slots: Record<string, string>;
}

/** A real click's URL beside the texts that made it: which rules explain it, or would. */
export function RealClick({
  text,
  nodes,
  onWrite,
}: {
  text: string;
  nodes: readonly Node[];
  onWrite: (t: string) => void;
}) {
  const { client } = useHere();
  const [url, setUrl] = useState('');
  const told = useMutation({
    mutationFn: (asked: string) =>
      data(
        api.POST('/clients/{client}/platforms/explanation', {
          params: { path: { client: client.id } },
          body: {
            text,
            nodes: nodes.map(({ level, type, slots }) => ({ level, slots, ...(type ? { type } : {}) })),
            url: asked,
          },
        }),
      ),
  });
  const changes = told.data?.changes;
  return (
    <section className={css.real} aria-label="a real click">
      <Textarea
        label="A real click’s URL"
        description="of an ad with the texts below: does the platform as written explain it?"
        autosize
        minRows={2}
        maxRows={7}
        spellCheck={false}
        value={url}
        onChange={(e) => {
          told.reset();
          setUrl(e.target.value.trim());
        }}
      />
      <Button
        size="xs"
        variant="default"
        disabled={url === ''}
        loading={told.isPending}
        onClick={() => told.mutate(url)}
      >
        Hold it against the rules
      </Button>
      {told.error && <Notice>{told.error.message}</Notice>}
      {told.data && told.data.problems.length === 0 && (
        <div role="status">
          {changes?.length === 0 && <p className={css.right}>The rules explain this URL, character by character.</p>}
          {changes === null && (
            <>
              <p>No rule that is known here explains it. It departs here:</p>
              <p className={`mono ${css.departs}`}>
                {url.slice(0, told.data.until)}
                <mark>{url.slice(told.data.until)}</mark>
              </p>
            </>
          )}
          {changes && changes.length > 0 && (
            <>
              <p>The rules as written don’t explain it. These would:</p>
              <ul>
                {changes.map((c) => (
                  <li key={c.path.join('.')}>{c.says}</li>
                ))}
              </ul>
              <Button
                size="xs"
                onClick={() => {
                  onWrite(changes.reduce((t, c) => written(t, c.path, c.to), text));
                  told.reset();
                }}
              >
                Write it so
              </Button>
            </>
          )}
          {told.data.values.length > 0 && (
            <p className="quiet">{told.data.values.map(([field, value]) => `${field}: ${value}`).join(' · ')}</p>
          )}
        </div>
      )}
    </section>
  );
}
