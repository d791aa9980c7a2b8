import { Autocomplete, Button, CopyButton } from '@mantine/core';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { api, data } from '../../api/client';
import { keyOf } from '../../lib/queries';
import { useHere } from '../../lib/useClient';
import { ManyNames } from './ManyNames';
import { wordsOf, type Pattern } from './names';
import css from './agree.module.css';

/** A name put together part by part: type, Tab, type; Enter copies it. */
export function Composer({ pattern }: { pattern: Pattern }) {
  const { client } = useHere();
  const [values, setValues] = useState<Record<string, string>>({});
  const isBegun = Object.values(values).some((v) => v !== '');
  const composed = useQuery({
    queryKey: keyOf('composed-name', client.id, pattern, values),
    queryFn: () =>
      data(
        api.POST('/clients/{client}/agreements/names/composition', {
          params: { path: { client: client.id } },
          body: { document: pattern as unknown as Record<string, unknown>, rows: [values] },
        }),
      ),
    enabled: isBegun,
    placeholderData: keepPreviousData,
    retry: false,
  });
  const one = isBegun ? composed.data?.items[0] : undefined;
  const name = one?.name ?? null;
  const trouble = one?.trouble ?? [];
  return (
    <section aria-label="put a name together" className={css.composer}>
      <h2>Put a name together</h2>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          if (name !== null) void navigator.clipboard.writeText(name);
        }}
      >
        {pattern.parts.map((part) => (
          <Autocomplete
            key={part.name}
            size="xs"
            label={part.name}
            placeholder={part.default ?? (part.optional ? 'may be left out' : undefined)}
            data={wordsOf(part)}
            value={values[part.name] ?? ''}
            error={trouble.find((t) => t.part === part.name && (values[part.name] ?? '') !== '')?.why}
            selectFirstOptionOnChange
            onChange={(value) => setValues({ ...values, [part.name]: value })}
          />
        ))}
        <output className={css.composed}>{name ?? (composed.error?.message || '…')}</output>
        {name !== null && (
          <CopyButton value={name}>
            {({ copied, copy }) => (
              <Button size="compact-xs" variant="default" onClick={copy}>
                {copied ? 'copied' : 'Copy it'}
              </Button>
            )}
          </CopyButton>
        )}
      </form>
      <ManyNames pattern={pattern} />
    </section>
  );
}
