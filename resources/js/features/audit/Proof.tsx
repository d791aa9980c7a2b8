import { useElementSize } from '@mantine/hooks';
import { useId } from 'react';
import type { Schema } from '../../api/client';
import { num } from '../../lib/numbers';
import { laid } from '../results/layers';
import css from './audit.module.css';

type Day = Schema['Troubles']['days'][number];
const HIGH = 74;
const STATES = ['proven', 'broken', 'untracked'] as const;

/** Proof over the days as layers: what holds, what is broken, what nothing is known of. */
export function Proof({ days }: { days: readonly Day[] }) {
  const { ref, width } = useElementSize();
  const id = useId();
  const last = days.at(-1);
  if (!last) return null;
  const steps = days.length === 1 ? [last, last] : days;
  const { laid: layers, top } = laid(
    STATES.map((key) => ({ key, values: steps.map((d) => d[key]) })),
    steps.length,
  );
  const x = (i: number) => (i * Math.max(1, width)) / (steps.length - 1);
  const y = (v: number) => HIGH - (v / Math.max(1, top)) * HIGH;
  const sum = last.proven + last.broken + last.untracked;
  return (
    <figure className={css.proof} ref={ref}>
      <figcaption>
        {STATES.map((s) => (
          <span key={s} data-state={s}>
            <svg width="11" height="11" aria-hidden>
              <rect width="11" height="11" fill={`url(#${id}-${s})`} />
            </svg>{' '}
            <b className="num">{num(last[s])}</b> {s}
          </span>
        ))}
        <span className="quiet">
          of {num(sum)} ads{days.length > 1 && `, ${num(days.length)} days`}
        </span>
      </figcaption>
      <svg
        width="100%"
        height={HIGH}
        role="img"
        aria-label={`${num(last.proven)} of ${num(sum)} ads proven, ${num(last.broken)} broken`}
      >
        <defs>
          {STATES.map((s) => (
            <pattern key={s} id={`${id}-${s}`} width="7" height="7" patternUnits="userSpaceOnUse">
              <rect width="7" height="7" className={css.ground} data-state={s} />
              {s === 'broken' && <path d="M0,7L7,0" className={css.hatch} data-state={s} />}
              {s === 'untracked' && <circle cx="3.5" cy="3.5" r="0.9" className={css.hatch} data-state={s} />}
            </pattern>
          ))}
        </defs>
        {layers.map((l) => (
          <path
            key={l.key}
            fill={`url(#${id}-${l.key})`}
            d={`M${[
              ...l.to.map((v, i) => `${x(i)},${y(v)}`),
              ...l.from.map((v, i) => `${x(i)},${y(v)}`).reverse(),
            ].join('L')}Z`}
          />
        ))}
      </svg>
    </figure>
  );
}
