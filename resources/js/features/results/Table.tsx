import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useRef } from 'react';
import { num } from '../../lib/numbers';
import { change, MEASURES, read } from './measures';
import { LAYERS } from './Picture';
import { Swatch } from './Swatch';
import { isTime, titleOf, type Measure, type Question } from './question';
import { idOf, type Shown } from './useLines';
import css from './results.module.css';

const ROW = 27;
const NAME = 230;
const COLUMN = 118;

interface Props {
  question: Question;
  columns: readonly Measure[];
  lines: readonly Shown[];
  total: Shown['line'];
  currency: string;
  at: number;
  onAt: (at: number) => void;
  onOpen: (path: readonly string[], open: boolean) => void;
  onMeasure: (measure: Measure) => void;
  onOnly: (path: readonly string[], not: boolean) => void;
  onBehind: (line: Shown) => void;
}

/** The lines of the answer as a tree, the largest first, for the keyboard; under the heads the sum of all. */
export function Table(props: Props) {
  const { question, columns, lines, total, currency, at } = props;
  const scroller = useRef<HTMLDivElement>(null);
  const rows = useVirtualizer({
    count: lines.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW,
    overscan: 12,
    scrollPaddingStart: 2 * ROW + 4,
  });
  const current = lines[at];
  useEffect(() => {
    if (at > 0) rows.scrollToIndex(at);
  }, [at, rows]);
  const parentOf = (line: Shown) => lines.findIndex((l) => idOf(l.path) === idOf(line.path.slice(0, -1)));
  const onKeyDown = (event: React.KeyboardEvent) => {
    if ((event.ctrlKey || event.metaKey) && event.key === 'c' && window.getSelection()?.isCollapsed) {
      void navigator.clipboard.writeText(asText(props, event.shiftKey ? lines : current ? [current] : []));
      return;
    }
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    const move = (to: number) => props.onAt(Math.max(0, Math.min(lines.length - 1, to)));
    const does: Record<string, () => void> = {
      ArrowDown: () => move(at + 1),
      ArrowUp: () => move(at - 1),
      PageDown: () => move(at + 15),
      PageUp: () => move(at - 15),
      Home: () => move(0),
      End: () => move(lines.length - 1),
      ArrowRight: () => {
        if (current?.mayOpen && !current.isOpen) props.onOpen(current.path, true);
        else if (current?.isOpen) move(at + 1);
      },
      ArrowLeft: () => {
        if (current?.isOpen) props.onOpen(current.path, false);
        else if (current && parentOf(current) >= 0) move(parentOf(current));
      },
      Enter: () => current && !current.folds && props.onBehind(current),
      o: () => current && !current.folds && props.onOnly(current.path, false),
      x: () => current && !current.folds && props.onOnly(current.path, true),
    };
    if (does[event.key]) {
      event.preventDefault();
      event.stopPropagation();
      does[event.key]?.();
    }
  };
  const row = {
    gridTemplateColumns: `minmax(${NAME}px, 1.6fr) repeat(${columns.length}, minmax(${COLUMN}px, 1fr))`,
    minWidth: NAME + columns.length * COLUMN,
  };
  const main = MEASURES[question.measure];
  const most = Math.max(0, ...lines.filter((l) => !l.folds).map((l) => main.of(l.line.now, currency) ?? 0));
  const told = question.by.map(titleOf).join(' › ');
  return (
    <div
      className={css.table}
      ref={scroller}
      role="treegrid"
      aria-label="lines of the answer"
      aria-rowcount={lines.length + 2}
      tabIndex={0}
      aria-activedescendant={current ? `line-${at}` : undefined}
      onKeyDown={onKeyDown}
    >
      <div className={css.heads} role="row" style={row}>
        <span role="columnheader" title={told}>
          {told}
        </span>
        {columns.map((m) => (
          <span key={m} role="columnheader" aria-sort={m === question.measure ? 'descending' : undefined}>
            <button type="button" title={MEASURES[m].means} onClick={() => props.onMeasure(m)} tabIndex={-1}>
              {MEASURES[m].title}
              {m === question.measure && !isTime(question.by[0]) && <i aria-hidden> ↓</i>}
            </button>
          </span>
        ))}
      </div>
      <div className={`${css.line} ${css.sum}`} role="row" style={row}>
        <span role="rowheader">all together</span>
        {columns.map((m) => (
          <Cell key={m} measure={m} line={total} currency={currency} />
        ))}
      </div>
      <div style={{ height: rows.getTotalSize(), position: 'relative' }} role="presentation">
        {rows.getVirtualItems().map((item) => {
          const shown = lines[item.index];
          if (!shown) return null;
          const depth = shown.path.length - 1;
          const share = most > 0 ? (main.of(shown.line.now, currency) ?? 0) / most : 0;
          return (
            <div
              key={idOf(shown.path)}
              id={`line-${item.index}`}
              className={css.line}
              role="row"
              aria-level={depth + 1}
              aria-expanded={shown.mayOpen ? shown.isOpen : undefined}
              aria-selected={item.index === at}
              data-at={item.index === at || undefined}
              data-depth={depth}
              style={{ ...row, transform: `translateY(${item.start}px)` }}
              onClick={() => props.onAt(item.index)}
            >
              <span role="rowheader" className={css.name} style={{ paddingLeft: 8 + depth * 18 }}>
                {shown.mayOpen ? (
                  <button
                    type="button"
                    className={css.twist}
                    tabIndex={-1}
                    aria-label={`${shown.isOpen ? 'close' : 'open'} ${shown.name}`}
                    onClick={() => props.onOpen(shown.path, !shown.isOpen)}
                  >
                    {shown.isOpen ? '▾' : '▸'}
                  </button>
                ) : (
                  <i className={css.twist} />
                )}
                {depth === 0 && !isTime(question.by[0]) && (
                  <Swatch at={shown.folds ? LAYERS : Math.min(LAYERS, firstsBefore(lines, item.index))} />
                )}
                <span title={shown.name} className={shown.path.at(-1) === '' || shown.folds ? 'quiet' : ''}>
                  {shown.folds ? `${num(shown.folds)} others` : shown.name}
                </span>
                {item.index === at && !shown.folds && (
                  <button type="button" className={css.link} tabIndex={-1} onClick={() => props.onBehind(shown)}>
                    sessions
                  </button>
                )}
              </span>
              {columns.map((m) => (
                <Cell
                  key={m}
                  measure={m}
                  line={shown.line}
                  currency={currency}
                  share={m === question.measure && !shown.folds ? share : undefined}
                />
              ))}
            </div>
          );
        })}
      </div>
    </div>
  );
}

const firstsBefore = (lines: readonly Shown[], at: number): number =>
  lines.slice(0, at).filter((l) => l.path.length === 1).length;

function Cell({
  measure,
  line,
  currency,
  share,
}: {
  measure: Measure;
  line: Shown['line'];
  currency: string;
  share?: number;
}) {
  const { of } = MEASURES[measure];
  const now = of(line.now, currency);
  const drift = line.before ? change(measure, now, of(line.before, currency)) : null;
  return (
    <span role="gridcell" className={css.cell}>
      {share !== undefined && share > 0.015 && (
        <i className={css.bar} style={{ width: `${Math.max(0, share) * 100}%` }} aria-hidden />
      )}
      {now === null || now === 0 ? <span className="quiet">–</span> : read(measure, now, currency)}
      {line.before && (
        <small
          data-good={drift?.good ?? undefined}
          title={`before: ${read(measure, of(line.before, currency), currency)}`}
        >
          {drift?.text ?? ''}
        </small>
      )}
    </span>
  );
}

/** Lines as cells that paste into a spreadsheet. */
export function asText({ question, columns, currency }: Props, lines: readonly Shown[]): string {
  const heads = [...question.by.map(titleOf), ...columns.map((m) => MEASURES[m].title)];
  const rows = lines.map((l) => [
    ...question.by.map((_, i) => (i === l.path.length - 1 ? l.name : (l.path[i] ?? ''))),
    ...columns.map((m) => read(m, MEASURES[m].of(l.line.now, currency), currency)),
  ]);
  return [heads, ...rows].map((cells) => cells.map((c) => c.replaceAll(/[\t\r\n]+/g, ' ')).join('\t')).join('\n');
}
