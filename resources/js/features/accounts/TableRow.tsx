import { Ribbon } from '../../components/Ribbon';
import { State, StateBar } from '../../components/State';
import { sentWords, type Sent } from './useSends';
import type { Line, Row } from './useTree';
import css from './accounts.module.css';
import { num } from '../../lib/numbers';

interface Props {
  line: Line;
  columns: string;
  keys: readonly string[];
  /** parts of names, in place of keys */
  parts: readonly string[] | null;
  sent: Sent | undefined;
  top: number;
  height: number;
  on: boolean;
  chosen: boolean;
  onClick: (event: React.MouseEvent) => void;
  onPick: (row: Row) => void;
  onToggle: (id: number) => void;
}

export function TableRow({
  line,
  columns,
  keys,
  parts,
  sent,
  top,
  height,
  on,
  chosen,
  onClick,
  onPick,
  onToggle,
}: Props) {
  const place = { gridTemplateColumns: columns, transform: `translateY(${top}px)`, height };
  const { row } = line;
  if (!row) {
    return (
      <div className={css.row} style={place} role="row" aria-busy="true">
        <span role="gridcell" className="quiet" style={{ paddingLeft: 26 + line.indent * 18 }}>
          …
        </span>
      </div>
    );
  }
  const bad = new Set(row.faultKeys);
  return (
    <div
      id={`row-${row.id}`}
      className={`${css.row} ${on ? css.on : ''} ${chosen ? css.chosen : ''} ${row.isAd ? '' : css.node}`}
      style={place}
      role="row"
      aria-selected={chosen}
      data-at={on || undefined}
      aria-level={line.indent + 1}
      aria-expanded={row.isAd ? undefined : line.open}
      onClick={(e) => (e.detail === 2 ? onPick(row) : onClick(e))}
    >
      <span role="gridcell" className={css.name} style={{ paddingLeft: 6 + line.indent * 18 }}>
        {row.isAd ? (
          <span className={css.twist}>{row.state && <State state={row.state} wordless />}</span>
        ) : (
          <span className={css.twist} onClick={() => onToggle(row.id)} data-toggle={row.id}>
            {line.open ? '▾' : '▸'}
          </span>
        )}
        <span title={row.name}>{row.name || <i>{row.externalId}</i>}</span>
        {row.type && <i>{row.type}</i>}
      </span>
      {!row.isAd && (
        <span role="gridcell" className={css.ads}>
          <StateBar {...row} />
          <span className="num">{num(row.ads)}</span>
        </span>
      )}
      <span role="gridcell" className={`${css.sends} ${row.isAd ? css.wide : ''}`} aria-colindex={3}>
        {row.isAd ? (
          <Ribbon compact segments={trimmed(row)} bad={row.faultKeys} />
        ) : (
          row.says.map((s) => <Says key={s.slot} {...s} />)
        )}
      </span>
      {parts ? (
        parts.map((part) => (
          <span key={part} role="gridcell" className={css.value} title={row.parts[part]}>
            {row.parts[part] ?? ''}
          </span>
        ))
      ) : row.isAd ? (
        keys.map((key) => (
          <span
            key={key}
            role="gridcell"
            className={`${css.value} ${!bad.has(key) ? '' : row.arrival[key] === undefined ? css.missing : css.bad}`}
            title={row.arrival[key]}
          >
            {row.arrival[key] ?? (bad.has(key) ? 'missing' : '')}
          </span>
        ))
      ) : (
        <Below sent={sent} ads={row.ads} keys={keys} />
      )}
    </div>
  );
}

/** What the ads below send. */
function Below({ sent, ads, keys }: { sent: Sent | undefined; ads: number; keys: readonly string[] }) {
  return keys.map((key) => {
    const words = sent ? sentWords(sent, ads, key) : { short: '', full: '', mixed: false };
    return (
      <span
        key={key}
        role="gridcell"
        className={`${css.value} ${words.mixed ? css.mixed : css.same}`}
        title={words.full}
      >
        {words.short}
      </span>
    );
  });
}

function Says({ slot, text }: { slot: string; text: string }) {
  return (
    <span className={css.says}>
      <em>{slot}</em> {text}
    </span>
  );
}

/** In a narrow column what follows the page matters more than the page's address. */
function trimmed(row: Row): Row['ribbon'] {
  const [first, ...rest] = row.ribbon;
  if (!first || rest.length === 0 || first.role !== 'landing' || first.text.length < 14) return row.ribbon;
  const tail = first.text.replace(/^https?:\/\/[^/?#]*/, '');
  return [{ ...first, text: `…${tail.length > 12 ? tail.slice(-11) : tail}` }, ...rest];
}
