import { useState } from 'react';
import type { Schema } from '../../api/client';
import { num } from '../../lib/numbers';
import css from './agree.module.css';

const [WIDTH, LEAST, GAP] = [300, 14, 6];

/** What other rules would count elsewhere, as bands from the channel that is to the one that would be. */
export function Flows({ shift }: { shift: Schema['ChannelShift'] }) {
  const [open, setOpen] = useState<number | null>(null);
  const all = shift.flows.reduce((sum, f) => sum + f.arrivals, 0);
  const heights = shift.flows.map((f) => Math.max(LEAST, (f.arrivals / Math.max(all, 1)) * 160));
  const tops = heights.map((_, i) => heights.slice(0, i).reduce((sum, h) => sum + h + GAP, 0));
  const height = heights.reduce((sum, h) => sum + h + GAP, 0);
  return (
    <section aria-label="what would move">
      <h2>What would move</h2>
      <p className="quiet">
        Of the last {shift.days} days, {num(shift.stays)} arrivals stay where they are
        {all > 0 && `, ${num(all)} would be counted elsewhere`}. Days before the first day of this keep their channels.
      </p>
      {shift.flows.length > 0 && (
        <svg
          className={css.flows}
          viewBox={`0 0 ${WIDTH} ${height}`}
          width={WIDTH}
          height={height}
          role="img"
          aria-label="bands from channel to channel"
        >
          {shift.flows.map((flow, i) => {
            const [top, h] = [tops[i]!, heights[i]!];
            const far = height - top - h - GAP; // crossed: one sees that something moves
            const end = shift.flows.length === 1 ? top : far;
            return (
              <g key={`${flow.from} ${flow.to}`} data-open={open === i || undefined}>
                <path
                  d={`M0 ${top} C${WIDTH / 2} ${top} ${WIDTH / 2} ${end} ${WIDTH} ${end} V${end + h} C${WIDTH / 2} ${
                    end + h
                  } ${WIDTH / 2} ${top + h} 0 ${top + h}Z`}
                />
                <text x={4} y={top + h / 2}>
                  {flow.from}
                </text>
                <text x={WIDTH - 4} y={end + h / 2} textAnchor="end">
                  {flow.to}
                </text>
              </g>
            );
          })}
        </svg>
      )}
      <ul className={css.flowList}>
        {shift.flows.map((flow, i) => (
          <li key={`${flow.from} ${flow.to}`}>
            <button type="button" aria-expanded={open === i} onClick={() => setOpen(open === i ? null : i)}>
              {flow.from} → <b>{flow.to}</b>{' '}
              <span className="quiet">{flow.arrivals === 1 ? 'one arrival' : `${num(flow.arrivals)} arrivals`}</span>
            </button>
            {open === i && (
              <ul>
                {flow.lines.map((l, n) => (
                  <li key={n} className="mono">
                    {Object.values(l.values).join(' / ')} <span className="quiet">{num(l.arrivals)}</span>
                  </li>
                ))}
                {flow.count > flow.lines.length && (
                  <li className="quiet">and {num(flow.count - flow.lines.length)} more lines</li>
                )}
              </ul>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
