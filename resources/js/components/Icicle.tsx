import { useMemo, useState } from 'react';
import { layOut, neighbour, type Cell, type Placed } from './icicle';
import css from './icicle.module.css';
import { num } from '../lib/numbers';

interface Props {
  cells: readonly Cell[];
  width: number;
  height: number;
  /** the element that is zoomed to */
  at: number | null;
  onPick: (cell: Cell) => void;
  onOut: () => void;
}

/**
 * The whole account at a glance: levels from left to right, height by ads, shade by proven, broken and untracked.
 * Arrows walk in it, Enter looks into an element, Backspace steps back.
 */
export function Icicle({ cells, width, height, at, onPick, onOut }: Props) {
  const placed = useMemo(() => layOut(cells, width, height), [cells, width, height]);
  const [cursor, setCursor] = useState<number | null>(null);
  const current = placed.find((c) => c.id === cursor);
  const onKeyDown = (event: React.KeyboardEvent) => {
    const next = event.key.startsWith('Arrow') ? neighbour(placed, current?.id ?? null, event.key) : null;
    if (next !== null) setCursor(next);
    else if (event.key === 'Enter' && current) onPick(current);
    else if (event.key === 'Backspace') onOut();
    else if (!event.key.startsWith('Arrow')) return;
    event.preventDefault();
  };
  return (
    <svg
      className={css.icicle}
      viewBox={`0 0 ${width} ${height}`}
      width={width}
      height={height}
      role="tree"
      aria-label="picture of the account"
      aria-activedescendant={current && `cell-${current.id}`}
      tabIndex={0}
      onKeyDown={onKeyDown}
      onFocus={() => current ?? setCursor(placed[0]?.id ?? null)}
    >
      <defs>
        <pattern id="broken" width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width="5" height="5" className={css.brokenGround} />
          <rect width="3" height="5" className={css.brokenStripe} />
        </pattern>
      </defs>
      {placed.map((c) => (
        <Element key={c.id} cell={c} isAt={c.id === at} isOn={c.id === current?.id} onPick={onPick} />
      ))}
    </svg>
  );
}

interface ElementProps {
  cell: Placed;
  isAt: boolean;
  isOn: boolean;
  onPick: (cell: Cell) => void;
}

function Element({ cell: c, isAt, isOn, onPick }: ElementProps) {
  const all = Math.max(1, c.proven + c.broken + c.untracked);
  const share = (n: number) => ((c.width - 1) * n) / all;
  const gap = c.height > 4 ? 1 : 0;
  const count = (n: number) => num(n);
  const name = c.many > 1 ? `${count(c.many)}: ${c.name}` : c.name;
  const says = `${name}, ${count(c.proven)} proven, ${count(c.broken)} broken, ${count(c.untracked)} untracked`;
  return (
    <g
      id={`cell-${c.id}`}
      role="treeitem"
      aria-level={c.depth + 1}
      aria-label={says}
      aria-selected={isAt}
      transform={`translate(${c.x} ${c.y})`}
      className={`${css.cell} ${isAt ? css.at : ''} ${isOn ? css.on : ''}`}
      onClick={() => onPick(c)}
      data-cell={c.id}
      data-many={c.many}
    >
      <title>{says}</title>
      <rect width={c.width - 1} height={c.height - gap} className={css.none} />
      <rect width={share(c.proven)} height={c.height - gap} className={css.proven} />
      <rect x={share(c.proven)} width={share(c.broken)} height={c.height - gap} fill="url(#broken)" />
      <rect
        x={share(c.proven) + share(c.broken)}
        width={share(c.untracked)}
        height={c.height - gap}
        className={css.untracked}
      />
      {c.many > 1 && <rect width={3} height={c.height - gap} className={css.band} />}
      {c.height > 13 && (
        <foreignObject width={c.width - 1} height={Math.min(c.height, 16)} aria-hidden>
          <div className={css.label}>
            <span>{name}</span>
          </div>
        </foreignObject>
      )}
      <rect width={c.width - 1} height={c.height - gap} className={css.frame} />
    </g>
  );
}
