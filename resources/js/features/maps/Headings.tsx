import { Button, Select, Textarea, TextInput } from '@mantine/core';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { api, data, type Schema } from '../../api/client';
import { Notice } from '../../components/Notice';
import { useHere } from '../../lib/useClient';
import { about, choices, NOTHING } from '../intake/meanings';
import { useKeeping } from './useMaps';
import css from './maps.module.css';

type Suggested = Schema['SuggestedMap'];

/** A platform's headings, pasted; what each is taken for can be said otherwise. */
export function Headings({ dialect, onKept }: { dialect: string; onKept: () => void }) {
  const { client } = useHere();
  const [pasted, setPasted] = useState('');
  const [title, setTitle] = useState('');
  const [of, setOf] = useState<Suggested | null>(null);
  const keep = useKeeping(onKept);
  const suggest = useMutation({
    mutationFn: (headings: string[]) =>
      data(
        api.POST('/clients/{client}/sheet-maps/suggestion', {
          params: { path: { client: client.id } },
          body: { dialect, headings },
        }),
      ),
    onSuccess: setOf,
  });
  const look = (text: string) => {
    setPasted(text);
    const headings = text
      .split(text.includes('\t') ? '\t' : /[,;\n]/)
      .map((h) => h.trim())
      .filter((h) => h !== '');
    if (headings.length > 1) suggest.mutate(headings);
    else setOf(null);
  };
  const used = of?.columns.filter((c) => c.means !== NOTHING) ?? [];
  const level = of?.level ?? of?.words.levels.at(-1)?.id;
  return (
    <form
      className={css.headings}
      onSubmit={(e) => {
        e.preventDefault();
        keep.mutate({
          format: 'vestigon.sheet-map/1',
          title,
          dialect,
          tables: [{ title, level, columns: used.map(({ heading, means }) => ({ heading, means })) }],
        });
      }}
    >
      <Textarea
        size="xs"
        label="The headings of their sheet"
        description="Paste its heading row."
        autosize
        maxRows={4}
        value={pasted}
        onChange={(e) => look(e.target.value)}
        data-autofocus
      />
      {suggest.error && <Notice>{suggest.error.message}</Notice>}
      {of && (
        <>
          <table className={css.columns}>
            <tbody>
              {of.columns.map((column, at) => (
                <tr key={`${at} ${column.heading}`} data-about={about(column.means)}>
                  <th scope="row">{column.heading}</th>
                  <td>
                    <Select
                      size="xs"
                      aria-label={`what “${column.heading}” means`}
                      searchable
                      allowDeselect={false}
                      data={choices(of.words, { level: level ?? null }, column)}
                      value={column.means}
                      onChange={(means) =>
                        means && setOf({ ...of, columns: of.columns.with(at, { ...column, means }) })
                      }
                    />
                  </td>
                  <td className="quiet">{column.why}</td>
                </tr>
              ))}
            </tbody>
          </table>
          <div className={css.bring}>
            <Select
              size="xs"
              label="Its rows are of"
              allowDeselect={false}
              data={of.words.levels.map((l) => ({ value: l.id, label: l.label }))}
              value={level ?? null}
              onChange={(to) => setOf({ ...of, level: to })}
            />
            <TextInput
              size="xs"
              label="Called"
              required
              maxLength={100}
              value={title}
              onChange={(e) => setTitle(e.target.value)}
            />
            <Button type="submit" size="xs" loading={keep.isPending} disabled={used.length < 2}>
              Keep it
            </Button>
          </div>
          {keep.error && <Notice>{keep.error.message}</Notice>}
        </>
      )}
    </form>
  );
}
