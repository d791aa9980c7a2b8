import { Menu } from '@mantine/core';
import { useCallback, useMemo, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { Empty, Notice } from '../../components/Notice';
import { useHere } from '../../lib/useClient';
import { useKeys } from '../../lib/useKeys';
import { Behind } from './Behind';
import { Counting } from './Counting';
import { Kept } from './Kept';
import { COLUMNS, MEASURES } from './measures';
import { Meant } from './Meant';
import { Picture } from './Picture';
import { Sentence } from './Sentence';
import { Table } from './Table';
import {
  aboveAsOnly,
  daysOf,
  isOfItems,
  readQuestion,
  today,
  type Measure,
  type Only,
  type Question,
} from './question';
import { save } from './save';
import { idOf, useLines, type Shown } from './useLines';
import { useReading } from './useReading';
import css from './results.module.css';

const NONE: ReadonlySet<string> = new Set();

/** What clicks brought: a question in words, its answer as a picture, and as lines that can be opened. */
export default function ResultsPage() {
  const { client, to } = useHere();
  const [address, setAddress] = useSearchParams();
  const question = useMemo(() => readQuestion(address.get('q')), [address]);
  const [open, setOpen] = useState(NONE);
  const [at, setAt] = useState(0);
  const [behind, setBehind] = useState<Shown | null>(null);
  const [saving, setSaving] = useState<string | null>(null);
  const [counting, setCounting] = useState(false);
  const days = useMemo(() => daysOf(question.period, today(client.timeZone)), [question.period, client.timeZone]);
  const { reading, error: unread } = useReading(client.id, days, question.meant);
  const isRead = !question.meant || reading?.status === 'done';
  const asked = useMemo(
    () => (question.meant ? { ...question, reading: reading?.id } : question),
    [question, reading?.id],
  );
  const { first, lines, error: unanswered } = useLines(client.id, asked, days, open, isRead);
  const error = unread ?? unanswered;
  const columns = question.columns ?? COLUMNS;

  const ask = useCallback(
    (next: Question) => {
      setOpen(NONE);
      setAt(0);
      setBehind(null);
      setAddress({ q: JSON.stringify(next) });
    },
    [setAddress],
  );
  const only = (path: readonly string[], not: boolean) => {
    const wanted = not
      ? aboveAsOnly(question, path)
          .slice(-1)
          .map((o) => ({ ...o, not }))
      : aboveAsOnly(question, path);
    // what is asked for only can't be told by any more: there is one of it
    const by = not ? question.by : question.by.filter((_, i) => i >= path.length);
    ask({ ...question, by: by.length > 0 ? by : question.by.slice(-1), where: joined(question.where, wanted) });
  };
  useKeys(
    useMemo(
      () => ({
        b: () => ask({ ...question, beside: question.beside === null ? 'before' : null }),
        Escape: () => setBehind(null),
        '[': () => ask({ ...question, measure: beside(question.measure, columns, -1) }),
        ']': () => ask({ ...question, measure: beside(question.measure, columns, 1) }),
      }),
      [ask, columns, question],
    ),
  );
  const take = (kind: 'csv' | 'xlsx') => {
    setSaving(null);
    void save(client.id, {
      by: question.by,
      ...days,
      where: question.where,
      order: question.measure,
      kind,
      reading: asked.reading ?? null,
    }).catch((e: unknown) => setSaving(e instanceof Error ? e.message : 'The sheet could not be made. Try again.'));
  };
  if (error) return <Notice>{error.message}</Notice>;
  if (!first && isRead) return null;
  const isEmpty = first?.lines.length === 0;
  return (
    <div className={css.page} data-behind={behind !== null || undefined}>
      <div className={css.main}>
        <div className={css.top}>
          <Sentence
            question={question}
            days={days}
            beside={question.meant ? null : (first?.beside ?? null)}
            asked={first?.asked ?? []}
            onChange={ask}
          />
          <Link to={to('results/balance')} className={css.link}>
            what did not arrive
          </Link>
          <Link to={to('results/numbers')} className={css.link}>
            a report’s numbers
          </Link>
          <Kept question={question} onAsk={ask} />
          <Menu position="bottom-end">
            <Menu.Target>
              <button type="button" className={css.link}>
                columns
              </button>
            </Menu.Target>
            <Menu.Dropdown className={css.choices}>
              {(Object.keys(MEASURES) as Measure[]).map((m) => (
                <Menu.Item
                  key={m}
                  closeMenuOnClick={false}
                  role="menuitemcheckbox"
                  aria-checked={columns.includes(m)}
                  leftSection={columns.includes(m) ? '✓' : <span style={{ display: 'inline-block', width: 10 }} />}
                  onClick={() => ask({ ...question, columns: toggled(columns, m) })}
                >
                  {MEASURES[m].title}
                </Menu.Item>
              ))}
            </Menu.Dropdown>
          </Menu>
          <button type="button" className={css.link} onClick={() => setCounting(true)}>
            how it is counted
          </button>
          <Menu position="bottom-end">
            <Menu.Target>
              <button type="button" className={css.link}>
                take away
              </button>
            </Menu.Target>
            <Menu.Dropdown>
              <Menu.Item onClick={() => take('csv')}>all lines as CSV</Menu.Item>
              <Menu.Item onClick={() => take('xlsx')}>all lines as XLSX</Menu.Item>
            </Menu.Dropdown>
          </Menu>
        </div>
        {counting && <Counting onClose={() => setCounting(false)} />}
        {saving && <Notice>{saving}</Notice>}
        {question.meant && <Meant reading={reading} />}
        {!isRead || !first ? null : isEmpty ? (
          <Empty title="Nothing of that has arrived in these days">
            {question.where.length > 0
              ? 'Ask for less: take away one of the “only” above.'
              : 'Ask for other days. Results begin with the first click that arrives: pages report it once an owner ' +
                'has added a site under “People and client”.'}
          </Empty>
        ) : (
          <>
            <Picture question={asked} days={days} first={first} />
            {!first.figures && (
              <p className={css.note}>
                Platforms say nothing by these: impressions, clicks and cost are left out.
                {isOfItems(question) &&
                  ' Sessions are of no item; an order of several counts for each in equal parts, with what each costs.'}
              </p>
            )}
            <Table
              question={question}
              columns={columns}
              lines={lines}
              total={first.total}
              currency={client.currency}
              at={at}
              onAt={setAt}
              onOpen={(path, isOpen) => setOpen(opened(open, path, isOpen))}
              onMeasure={(measure) => ask({ ...question, measure })}
              onOnly={only}
              onBehind={setBehind}
            />
          </>
        )}
      </div>
      {behind && (
        <Behind
          key={idOf(behind.path)}
          question={asked}
          days={days}
          path={behind.path}
          name={behind.name}
          onClose={() => setBehind(null)}
        />
      )}
    </div>
  );
}

function opened(open: ReadonlySet<string>, path: readonly string[], isOpen: boolean): ReadonlySet<string> {
  const next = new Set(open);
  if (isOpen) next.add(idOf(path));
  else next.delete(idOf(path));
  return next;
}

const toggled = (columns: readonly Measure[], one: Measure): Measure[] =>
  (Object.keys(MEASURES) as Measure[]).filter((m) => (m === one ? !columns.includes(m) : columns.includes(m)));

function beside(measure: Measure, columns: readonly Measure[], by: number): Measure {
  const i = columns.indexOf(measure);
  return columns[(i + by + columns.length) % columns.length] ?? measure;
}

function joined(all: readonly Only[], more: readonly Only[]): Only[] {
  const kept = all.filter((o) => !more.some((m) => m.by === o.by && m.not === o.not && !m.not));
  return more.reduce<Only[]>((sum, m) => {
    const same = sum.find((o) => o.by === m.by && o.not && m.not);
    return same ? sum.map((o) => (o === same ? { ...o, is: [...new Set([...o.is, ...m.is])] } : o)) : [...sum, m];
  }, kept);
}
