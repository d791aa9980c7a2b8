import { Button, FileButton, Textarea } from '@mantine/core';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useCallback, useState } from 'react';
import { api, data } from '../../api/client';
import { Notice } from '../../components/Notice';
import { keyOf } from '../../lib/queries';
import { saved } from '../../lib/saved';
import { useHere } from '../../lib/useClient';
import { DropZone } from '../intake/DropZone';
import { Columns } from './Columns';
import { Lines } from './Lines';
import { brought, shownOf, type Brought, type By, type Only } from './report';
import css from './numbers.module.css';

const FILES = '.csv,.tsv,.txt,.xlsx,.ods,.gz,.zip';

/** Any sheet out of any report: the names of what its numbers are of, the numbers of what its names are of. */
export default function NumbersPage() {
  const { client } = useHere();
  const [report, setReport] = useState<Brought | null>(null);
  const [table, setTable] = useState(0);
  const [told, setTold] = useState<ReadonlyMap<number, By | null>>(new Map());
  const [summed, setSummed] = useState<readonly number[] | null>(null);
  const [only, setOnly] = useState<Only>('all');
  const [open, setOpen] = useState<ReadonlySet<number>>(new Set());
  const [problem, setProblem] = useState<string | null>(null);
  const columns = [...told].map(([at, by]) => ({ at, by }));
  const asked = { table, columns, summed: summed === null ? null : [...summed] };
  const path = { client: client.id };
  const look = useQuery({
    queryKey: keyOf('numbers', client.id, report?.id, asked),
    queryFn: () => {
      const { name, content } = report!;
      return data(api.POST('/clients/{client}/numbers', { params: { path }, body: { name, content, ...asked } }));
    },
    enabled: report !== null,
    retry: false,
    staleTime: Infinity,
    // of the same report alone
    placeholderData: (before, last) => (last?.queryKey[2] === report?.id ? before : undefined),
  });
  const sheet = useMutation({
    mutationFn: ({ name, content }: Brought) =>
      saved(
        api.POST('/clients/{client}/numbers/file', {
          params: { path },
          body: { name, content, ...asked },
          parseAs: 'blob',
        }),
        'named.csv',
      ),
  });
  const take = useCallback((name: string, what: Blob) => {
    setProblem(null);
    setTable(0);
    setTold(new Map());
    setSummed(null);
    setOnly('all');
    setOpen(new Set());
    brought(name, what).then(setReport, () => setProblem(`${name} could not be read. Choose it again.`));
  }, []);
  const dropped = useCallback((files: File[]) => files[0] && take(files[0].name, files[0]), [take]);
  const said = problem ?? sheet.error?.message ?? (report ? look.error?.message : null);
  if (report === null || look.error) {
    return (
      <div className={css.page}>
        <DropZone onFiles={dropped} />
        {said && <Notice>{said}</Notice>}
        <Bring onTake={take} />
      </div>
    );
  }
  if (!look.data) return <p className={css.reading}>{report.name} is read</p>;
  const found = look.data;
  return (
    <div className={css.page}>
      <DropZone onFiles={dropped} />
      {said && <Notice>{said}</Notice>}
      <header>
        <h1>{report.name}</h1>
        {found.tables.length > 1 &&
          found.tables.map((title, i) => (
            <button
              key={title}
              type="button"
              className={css.link}
              aria-pressed={i === table}
              onClick={() => setTable(i)}
            >
              {title}
            </button>
          ))}
        <span className="quiet">{found.form.note}</span>
        <span style={{ flex: 1 }} />
        <button type="button" className={css.link} onClick={() => setReport(null)}>
          another report
        </button>
        <Button size="compact-sm" loading={sheet.isPending} onClick={() => sheet.mutate(report)}>
          Take away, all rows
        </Button>
      </header>
      <Columns
        look={found}
        only={only}
        onOnly={setOnly}
        onTell={(at, by) => setTold(new Map([...told, [at, by]]))}
        summed={summed}
        onSum={(next) => {
          setOpen(new Set());
          setSummed(next);
        }}
      />
      <Lines
        look={found}
        shown={shownOf(found, only, open)}
        open={open}
        onOpen={(at) => setOpen(new Set(open.has(at) ? [...open].filter((o) => o !== at) : [...open, at]))}
      />
    </div>
  );
}

/** Nothing has been brought yet. */
function Bring({ onTake }: { onTake: (name: string, what: Blob) => void }) {
  const [text, setText] = useState('');
  const begin = (what: string) => what.trim() !== '' && onTake('pasted rows', new Blob([what]));
  return (
    <section className={css.bring} aria-labelledby="bring">
      <h1 id="bring">Numbers and names</h1>
      <p>
        Paste rows out of any report, or drop the file. Names and paths come beside every number that is known, numbers
        beside every name, whatever it was called then. It goes out again as it came.
      </p>
      <Textarea
        aria-label="rows of a report"
        placeholder={'Ad ID\tClicks\n8810442\t120'}
        autosize
        minRows={7}
        maxRows={16}
        spellCheck={false}
        data-autofocus
        autoFocus
        value={text}
        classNames={{ input: 'mono' }}
        onChange={(e) => setText(e.currentTarget.value)}
        onPaste={(e) => {
          if (text !== '') return;
          e.preventDefault();
          begin(e.clipboardData.getData('text/plain'));
        }}
        onKeyDown={(e) => {
          if (e.key === 'Enter' && (e.ctrlKey || e.metaKey)) begin(text);
        }}
      />
      <div className={css.ways}>
        <Button size="compact-sm" disabled={text.trim() === ''} onClick={() => begin(text)}>
          Read these rows
        </Button>
        <FileButton accept={FILES} onChange={(file) => file && onTake(file.name, file)}>
          {(props) => (
            <button type="button" className={css.link} {...props}>
              a file …
            </button>
          )}
        </FileButton>
        <span className="quiet">CSV, XLSX, ODS; the whole number, or its last digits</span>
      </div>
    </section>
  );
}
