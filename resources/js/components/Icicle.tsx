import { useMemo } from 'react';
import { layOut, type Cell, type Placed } from './icicle';
import css from './icicle.module.css';

interface Props {
  cells: readonly Cell[];
  width: number;
  height: number;
  /** the element that is zoomed to */
  at: number | null;
  onPick: (id: number) => void;
}

/** The whole account at a glance: levels from left to right, height by ads, shade by proven, broken and untracked. */
export function Icicle({ cells, width, height, at, onPick }: Props) {
  const placed = useMemo(() => layOut(cells, width, height), [cells, width, height]);
  return (
    <svg
      className={css.icicle}
      viewBox={`0 0 ${width} ${height}`}
      width={width}
      height={height}
      role="group"
      aria-label="picture of the account"
    >
      <defs>
        <pattern id="broken" width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width="5" height="5" className={css.brokenGround} />
          <rect width="3" height="5" className={css.brokenStripe} />
        </pattern>
      </defs>
      {placed.map((c) => (
        <Element key={c.id} cell={c} isAt={c.id === at} onPick={onPick} />
      ))}
    </svg>
  );
}

function Element({ cell: c, isAt, onPick }: { cell: Placed; isAt: boolean; onPick: (id: number) => void }) {
  const all = Math.max(1, c.proven + c.broken + c.untracked);
  const share = (n: number) => ((c.width - 1) * n) / all;
  const gap = c.height > 4 ? 1 : 0;
  const says = `${c.name}: ${c.proven} proven, ${c.broken} broken, ${c.untracked} untracked`;
  return (
    <g
      transform={`translate(${c.x} ${c.y})`}
      className={`${css.cell} ${isAt ? css.at : ''}`}
      onClick={() => onPick(c.id)}
      data-cell={c.id}
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
      {c.height > 13 && (
        <foreignObject width={c.width - 1} height={Math.min(c.height, 16)} aria-hidden>
          <div className={css.label}>
            <span>{c.name}</span>
          </div>
        </foreignObject>
      )}
    </g>
  );
}
