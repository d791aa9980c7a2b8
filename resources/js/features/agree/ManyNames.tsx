import { Button, CopyButton, Textarea } from '@mantine/core';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { api, data } from '../../api/client';
import { keyOf } from '../../lib/queries';
import { num } from '../../lib/numbers';
import { useHere } from '../../lib/useClient';
import { rowsOfParts, type Pattern } from './names';
import css from './agree.module.css';

const MOST = 500;

/** Many names at once: a row of parts for each pasted out of a spreadsheet, names to paste back into it. */
export function ManyNames({ pattern }: { pattern: Pattern }) {
  const { client } = useHere();
  const [text, setText] = useState('');
  const rows = rowsOfParts(text, pattern);
  const composed = useQuery({
    queryKey: keyOf('composed-name', client.id, pattern, rows),
    queryFn: () =>
      data(
        api.POST('/clients/{client}/agreements/names/composition', {
          params: { path: { client: client.id } },
          body: { document: pattern as unknown as Record<string, unknown>, rows: rows.slice(0, MOST) },
        }),
      ),
    enabled: rows.length > 0,
    placeholderData: keepPreviousData,
    retry: false,
  });
  const items = rows.length > 0 ? (composed.data?.items ?? []) : [];
  const wrong = items.filter((i) => i.name === null).length;
  return (
    <div className={css.many}>
      <Textarea
        size="xs"
        label="Many at once"
        description={`cells out of a spreadsheet, a row a name: ${pattern.parts.map((p) => p.name).join(', ')}`}
        autosize
        minRows={2}
        maxRows={8}
        spellCheck={false}
        classNames={{ input: 'mono' }}
        value={text}
        onChange={(e) => setText(e.target.value)}
      />
      {composed.error && rows.length > 0 && <p role="alert">{composed.error.message}</p>}
      {items.length > 0 && (
        <>
          <ol className={css.manyNames} aria-label="names put together">
            {items.map((item, i) => (
              <li key={i} data-wrong={item.name === null || undefined}>
                {item.name ?? item.trouble.map((t) => t.why).join('; ')}
              </li>
            ))}
          </ol>
          <div className={css.add}>
            <span role="status">
              {num(items.length - wrong)} names
              {wrong > 0 && `, ${wrong === 1 ? 'a row' : `${num(wrong)} rows`} with trouble`}
              {rows.length > MOST && `; the first ${num(MOST)} rows of ${num(rows.length)}`}
            </span>
            <CopyButton value={items.map((i) => i.name ?? '').join('\n')}>
              {({ copied, copy }) => (
                <Button size="compact-xs" variant="default" onClick={copy}>
                  {copied ? 'copied' : 'Copy them'}
                </Button>
              )}
            </CopyButton>
          </div>
        </>
      )}
    </div>
  );
}
