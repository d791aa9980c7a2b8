import { useClipboard } from '@mantine/hooks';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { num } from '../../lib/numbers';
import { useHere } from '../../lib/useClient';
import { added, asColumn, type Look, type Shown } from './report';
import { headed } from './Columns';
import css from './numbers.module.css';

/** The report's rows, with what is known of each beside it. */
export function Lines({
  look,
  shown,
  open,
  onOpen,
}: {
  look: Look;
  shown: readonly Shown[];
  open: ReadonlySet<number>;
  onOpen: (at: number) => void;
}) {
  const { to } = useHere();
  const navigate = useNavigate();
  const clipboard = useClipboard();
  const [on, setOn] = useState(0);
  const naming = new Map(look.columns.map((column, i) => [column.at, i]));
  const step = (by: number) => {
    const next = Math.max(0, Math.min(shown.length - 1, on + by));
    setOn(next);
    document.getElementById(`row-${next}`)?.scrollIntoView({ block: 'nearest' });
  };
  const go = () => {
    const named = shown[on]?.line.named.filter((n) => n !== null).at(-1);
    if (named) void navigate(to(named.isAd ? `trace/${named.node}` : `accounts/${named.account}?at=${named.node}`));
  };
  return (
    <div className={css.lines}>
      <table
        className={css.table}
        role="grid"
        aria-label="rows of the report"
        tabIndex={0}
        aria-activedescendant={shown[on] ? `row-${on}` : undefined}
        onKeyDown={(event) => {
          const by = { ArrowDown: 1, ArrowUp: -1, PageDown: 20, PageUp: -20, Home: -on, End: shown.length }[event.key];
          if (by !== undefined) {
            event.preventDefault();
            step(by);
          }
          const row = shown[on];
          const turns = row && (row.line.of ?? []).length > 0 && (event.key === 'ArrowRight') !== open.has(row.at);
          if (turns && (event.key === 'ArrowRight' || event.key === 'ArrowLeft')) onOpen(row.at);
          if (event.key === 'Enter') go();
        }}
      >
        <thead>
          <tr>
            {look.headings.map((_, at) => {
              const i = naming.get(at);
              return [
                <th key={at} scope="col" data-amount={look.amounts.includes(at) || undefined}>
                  {headed(look, at)}
                </th>,
                i !== undefined && (
                  <th key={`${at} added`} scope="col" data-added>
                    {look.columns[i]!.by === 'name' ? 'number' : 'name'}{' '}
                    <button type="button" className={css.link} onClick={() => clipboard.copy(asColumn(look, i))}>
                      {clipboard.copied ? 'copied' : 'copy'}
                    </button>
                  </th>
                ),
              ];
            })}
            <th scope="col" data-added>
              stands under
            </th>
          </tr>
        </thead>
        <tbody>
          {shown.map(({ line, beneath, at }, n) => {
            const of = line.of ?? [];
            const narrowest = line.named.filter((named) => named !== null).at(-1);
            return (
              <tr
                key={n}
                id={`row-${n}`}
                aria-selected={n === on}
                aria-expanded={of.length > 0 ? open.has(at) : undefined}
                data-beneath={beneath || undefined}
                onClick={() => {
                  setOn(n);
                  if (of.length > 0) onOpen(at);
                }}
              >
                {look.headings.map((_, place) => {
                  const i = naming.get(place);
                  const note = i === undefined ? null : line.notes[i];
                  return [
                    <td
                      key={place}
                      data-amount={look.amounts.includes(place) || undefined}
                      className={look.amounts.includes(place) ? 'num' : undefined}
                    >
                      {place === 0 && of.length > 0 && `${num(of.length)} × `}
                      {line.cells[place]}
                    </td>,
                    i !== undefined && (
                      <td key={`${place} added`} data-added title={note ?? undefined}>
                        {added(line, look.columns, i)}
                        {note && <em data-open={line.how[i] !== 'known' || undefined}>{note}</em>}
                      </td>
                    ),
                  ];
                })}
                <td data-added className="quiet">
                  {narrowest?.path}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      {look.lines.length < look.rows && (
        <p className="quiet">Here are the first {num(look.lines.length)} lines. What is taken away holds them all.</p>
      )}
    </div>
  );
}
