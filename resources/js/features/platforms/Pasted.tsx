import { Button, Select, Textarea } from '@mantine/core';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { api, data, type Schema } from '../../api/client';
import { Notice } from '../../components/Notice';
import { many } from '../../lib/numbers';
import { useHere } from '../../lib/useClient';
import { gives, written as asTyped, type Document, type Token } from './document';
import { merged, written } from './writing';
import css from './platforms.module.css';

type Read = Schema['Placeholders'];
type Item = Read['items'][number];

const FIELDS = [
  ...['account', 'folder', 'campaign', 'group', 'ad'].flatMap((l) => [`${l}.id`, `${l}.name`]),
  ...['keyword.text', 'keyword.match', 'device', 'network', 'placement', 'surface', 'publisher.name', 'publisher.id'],
  ...['page.url', 'product.id', 'click.id', 'click.random', 'ad.width', 'ad.height'],
];
const LANDING = ['landing URL', 'landing URL, as it is', 'landing URL, encoded once', 'landing URL, encoded twice'];

/** Every choice of values for which a text of its own may count, by the field. */
const LISTED = {
  device: ['desktop', 'mobile', 'tablet'],
  network: ['search', 'partner', 'display'],
  'keyword.match': ['exact', 'phrase', 'broad'],
};
const whenOf = (field: string, is: readonly string[]) => `its text, if ${field} is ${is.join(' or ')}`;
const some = ([a, b, c]: readonly string[]) => [[a], [b], [c], [a, b], [a, c], [b, c]] as string[][];
const WHEN = Object.entries(LISTED).flatMap(([field, values]) => some(values).map((is) => whenOf(field, is)));
const conditionOf = (choice: string) => {
  const [, field = '', is = ''] = /^its text, if (\S+) is (.*)$/.exec(choice) ?? [];
  return { field, is: is.split(' or ') };
};

/** A platform's list of placeholders, pasted as a table or as plain help text, becomes its catalogue. */
export function Pasted({
  text,
  document: d,
  onChange,
}: {
  text: string;
  document: Document;
  onChange: (t: string) => void;
}) {
  const { client } = useHere();
  const [pasted, setPasted] = useState('');
  const [chosen, setChosen] = useState<Record<string, string>>({});
  const read = useMutation({
    mutationFn: (help: string) =>
      data(
        api.POST('/clients/{client}/platforms/placeholders', {
          params: { path: { client: client.id } },
          body: { text: help },
        }),
      ),
    onSuccess: (found) => setChosen(Object.fromEntries(found.items.map((i) => [i.name, suggested(i)]))),
  });
  const items = read.data?.items ?? [];
  const open = items.filter((i) => !chosen[i.name]).length;
  const take = (found: Read) => {
    const tokens = found.items.flatMap((i) => token(i.name, chosen[i.name] ?? ''));
    let next = written(text, ['tokens'], merged(d.tokens, tokens));
    if (found.open !== '')
      next = written(next, ['syntax'], {
        caseSensitive: true,
        unknown: 'keep',
        ...d.syntax,
        open: found.open,
        close: found.close,
      });
    onChange(next);
    read.reset();
    setPasted('');
  };
  return (
    <section aria-label="placeholders from its help">
      <Textarea
        label="Paste the platform’s own list of placeholders"
        description="A table out of its help, or the help’s text as it stands. You decide what each name gives."
        minRows={5}
        autosize
        maxRows={10}
        spellCheck={false}
        value={pasted}
        onChange={(e) => setPasted(e.target.value)}
      />
      <Button
        size="xs"
        mt={6}
        disabled={pasted.trim() === ''}
        loading={read.isPending}
        onClick={() => read.mutate(pasted)}
      >
        Read it
      </Button>
      {read.error && <Notice>{read.error.message}</Notice>}
      {read.data && items.length === 0 && (
        <Notice calm>
          No name was found in it. A line for each, such as “{'{campaign}'} – id of the campaign”, is read.
        </Notice>
      )}
      {read.data && items.length > 0 && (
        <>
          <table className={css.tokens}>
            <caption className="quiet">
              {read.data.open === ''
                ? 'No marks were found around the names: say under “drawing” between which they stand.'
                : `Names stand between ${read.data.open} and ${read.data.close}` +
                  (read.data.isSure ? '.' : ', it seems.')}
            </caption>
            <thead>
              <tr>
                <th scope="col">name</th>
                <th scope="col">gives</th>
                <th scope="col">its help says</th>
              </tr>
            </thead>
            <tbody>
              {items.map((i) => (
                <tr key={i.name} data-sure={i.isSure}>
                  <td className="mono">{i.name}</td>
                  <td title={i.why}>
                    <Select
                      size="xs"
                      aria-label={`what ${i.name} gives`}
                      placeholder="left out"
                      clearable
                      searchable
                      data={i.kind === 'when' ? WHEN : [...LANDING, ...FIELDS]}
                      value={chosen[i.name] || null}
                      onChange={(v) => setChosen({ ...chosen, [i.name]: v ?? '' })}
                    />
                    {!i.isSure && <span className="quiet">{i.why}</span>}
                  </td>
                  <td>{i.says}</td>
                </tr>
              ))}
            </tbody>
          </table>
          <Button size="xs" mt={6} onClick={() => take(read.data)}>
            Take {many(items.length - open, 'placeholder')} over{open > 0 && `, leave ${open} out`}
          </Button>
        </>
      )}
      {!read.data && d.tokens.length > 0 && (
        <table className={css.tokens}>
          <caption className="quiet">What it has now</caption>
          <tbody>
            {d.tokens.map((t) => (
              <tr key={t.name} data-kind={t.kind}>
                <td className="mono">{asTyped(d, t)}</td>
                <td>{gives(t)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}

function suggested(i: Item): string {
  if (i.kind === 'when') return i.field === null ? '' : whenOf(i.field, i.is);
  if (i.kind === 'landing') return LANDING[i.encode === null ? 0 : i.encode + 1] ?? LANDING[0]!;
  return i.kind === 'value' ? (i.field ?? '') : '';
}

function token(name: string, choice: string): Token[] {
  if (choice === '') return [];
  const when = WHEN.indexOf(choice) < 0 ? null : conditionOf(choice);
  if (when) return [{ name, kind: 'when', ...when }];
  const depth = LANDING.indexOf(choice);
  if (depth < 0) return [{ name, kind: 'value', field: choice }];
  return [depth === 0 ? { name, kind: 'landing' } : { name, kind: 'landing', encode: depth - 1 }];
}
