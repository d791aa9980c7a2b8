import { Button, Checkbox, FileButton } from '@mantine/core';
import { useDebouncedValue } from '@mantine/hooks';
import { keepPreviousData, useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { api, data, type Schema } from '../../api/client';
import { Notice } from '../../components/Notice';
import { fileAsBase64 } from '../../lib/base64';
import { many } from '../../lib/numbers';
import { keyOf, useChanged } from '../../lib/queries';
import { useHere } from '../../lib/useClient';
import { asCells, asked, cellOf, EMPTY, heading, isEmpty, linksOf, pasteInto, withCell, type Row } from './bench';
import { Cell } from './Cell';
import { Hosts } from './Hosts';
import { Looked } from './Looked';
import css from './links.module.css';

/** Rows that the server takes at once. */
const MOST = 1000;

/** Links in the making: a small sheet, each row with the link that it makes beneath it, while it is typed. */
export function Bench({ keys, onPick }: { keys: readonly string[]; onPick: (link: number) => void }) {
  const { client } = useHere();
  const changed = useChanged();
  const [rows, setRows] = useState<readonly Row[]>([EMPTY]);
  const [more, setMore] = useState<readonly string[]>([]);
  const [short, setShort] = useState(true);
  const [host, setHost] = useState('');
  const [made, setMade] = useState<readonly Schema['LinkSaid'][]>([]);
  const columns = ['title', 'landing', ...keys, ...more.filter((key) => !keys.includes(key)), 'code'];
  const shown = rows.length === 0 || !isEmpty(rows.at(-1)!) ? [...rows, EMPTY] : rows;
  const links = rows.flatMap((row, i) => (isEmpty(row) ? [] : linksOf(row).map((link) => ({ link, row: i }))));
  const body = { rows: links.slice(0, MOST).map(({ link }) => asked(link, short, host)) };
  const [settled] = useDebouncedValue({ body, links }, 150);
  const looks = useQuery({
    queryKey: keyOf('link-looks', client.id, settled.body),
    queryFn: async () => {
      const { rows: looked } = await data(
        api.POST('/clients/{client}/links/look', { params: { path: { client: client.id } }, body: settled.body }),
      );
      return looked.map((look, i) => ({ look, of: settled.body.rows[i]?.landing }));
    },
    enabled: settled.body.rows.length > 0,
    placeholderData: keepPreviousData,
  });
  const make = useMutation({
    mutationFn: () => data(api.POST('/clients/{client}/links', { params: { path: { client: client.id } }, body })),
    onSuccess: (done) => {
      const refused = new Set(done.refused.map((r) => links[r.row]?.row));
      setRows(rows.filter((_, i) => refused.has(i)));
      setMade(done.made);
      changed('links');
    },
  });
  const sheet = useMutation({
    mutationFn: async (file: File) =>
      data(
        api.POST('/clients/{client}/links/sheet', {
          params: { path: { client: client.id } },
          body: { name: file.name, content: await fileAsBase64(file) },
        }),
      ),
    onSuccess: (read) => {
      setRows([...rows.filter((row) => !isEmpty(row)), ...read.rows.map((row) => ({ ...EMPTY, ...row }))]);
      setMore([...new Set([...more, ...read.keys])]);
    },
  });
  const set = (at: number, column: string, text: string) =>
    setRows(shown.map((row, i) => (i === at ? withCell(row, column, text) : row)));
  const style = grid(columns);
  // what was said of other rows is not said of these
  const said = looks.data?.length === settled.body.rows.length ? looks.data : [];
  const told = said.map(({ look, of }, i) => (of === settled.body.rows[i]?.landing ? look : null));
  const of = (row: number) => told.flatMap((look, n) => (look && settled.links[n]?.row === row ? [look] : []));
  const may = told.filter((look) => look?.allowed).length;
  const problem = make.error ?? sheet.error ?? looks.error;
  return (
    <section
      className={css.bench}
      aria-label="links in the making"
      onKeyDown={(event) => {
        if (event.key === 'Enter' && (event.ctrlKey || event.metaKey) && may > 0) make.mutate();
      }}
    >
      <header>
        <h1>Make links</h1>
        <span className="quiet">
          several words in a cell, with <kbd>|</kbd> between, make a link each; cells of a spreadsheet paste in
        </span>
        <span style={{ flex: 1 }} />
        <AnotherKey taken={columns} onAdd={(key) => setMore([...more, key])} />
        <FileButton accept=".csv,.tsv,.txt,.xlsx,.ods" onChange={(file) => file && sheet.mutate(file)}>
          {(props) => (
            <button type="button" className={css.link} {...props}>
              from a sheet …
            </button>
          )}
        </FileButton>
      </header>
      {problem && <Notice>{problem.message}</Notice>}
      <div className={css.sheet} role="grid" aria-label="links to be made">
        <div className={css.cells} role="row" style={style}>
          {columns.map((column) => (
            <span key={column} role="columnheader" title={column}>
              {{ title: 'what for', landing: 'landing page', code: 'short word' }[column] ?? heading(column)}
            </span>
          ))}
        </div>
        {shown.map((row, i) => (
          <div key={i} className={css.row} role="presentation">
            <div className={css.cells} role="row" style={style}>
              {columns.map((column) => (
                <Cell
                  key={column}
                  column={column}
                  row={i}
                  value={cellOf(row, column)}
                  wrong={of(i).some((look) => look.findings.some((f) => f.key === column && f.severity !== 'note'))}
                  onChange={(text) => set(i, column, text)}
                  onPaste={(text) => setRows(pasteInto(shown, columns, { row: i, column }, text))}
                />
              ))}
            </div>
            {!isEmpty(row) && (
              <Looked row={row} looks={of(i)} onMend={(column, text) => set(i, column, text)} onPick={onPick} />
            )}
          </div>
        ))}
      </div>
      <footer>
        <Button
          size="compact-sm"
          disabled={may === 0}
          loading={make.isPending}
          onClick={() => make.mutate()}
          rightSection={<kbd>Ctrl Enter</kbd>}
        >
          {links.length === 0 ? 'Make links' : `Make ${many(may, 'link')}`}
        </Button>
        <Checkbox
          size="xs"
          label="each with a short address"
          checked={short}
          onChange={(e) => setShort(e.target.checked)}
        />
        {short && <Hosts host={host} onChange={setHost} />}
        {links.length > MOST && (
          <span className="quiet">
            the first {MOST} of {many(links.length, 'link')}, then the rest
          </span>
        )}
        <span role="status">
          {made.length > 0 && (
            <>
              {many(made.length, 'link')} made.{' '}
              <button
                type="button"
                className={css.link}
                onClick={() => void navigator.clipboard.writeText(asCells(made))}
              >
                copy them as cells
              </button>
            </>
          )}
        </span>
      </footer>
    </section>
  );
}

function AnotherKey({ taken, onAdd }: { taken: readonly string[]; onAdd: (key: string) => void }) {
  const [key, setKey] = useState<string | null>(null);
  if (key === null) {
    return (
      <button type="button" className={css.link} onClick={() => setKey('')}>
        another key …
      </button>
    );
  }
  return (
    <input
      className={css.another}
      autoFocus
      aria-label="another key that links carry"
      placeholder="its name, then Enter"
      value={key}
      onChange={(e) => setKey(e.target.value.trim())}
      onBlur={() => setKey(null)}
      onKeyDown={(e) => {
        if (e.key === 'Escape') setKey(null);
        if (e.key !== 'Enter' || key === '') return;
        if (!taken.includes(key)) onAdd(key);
        setKey(null);
      }}
    />
  );
}

/** Pixels that a column takes at least. */
const LEAST: Record<string, number> = { landing: 190, title: 120 };
const least = (column: string) => LEAST[column] ?? 92;

const grid = (columns: readonly string[]) => ({
  gridTemplateColumns: columns
    .map((column) => `minmax(${least(column)}px, ${column === 'landing' ? 2.2 : 1}fr)`)
    .join(' '),
  minWidth: columns.reduce((sum, column) => sum + least(column), 0),
});
