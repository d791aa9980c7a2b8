import { useId } from 'react';
import { Link } from 'react-router';
import { money } from '../../lib/numbers';
import { useHere } from '../../lib/useClient';
import { Hatches } from './Stairs';
import { sizeOf, STEPS, stepsOf, toldOf, type By, type Of, type Stair, type Step } from './steps';
import css from './balance.module.css';

/** The stair of each platform, account, campaign or ad as one line, gone down into by Enter. */
export function Lines({
  of,
  text,
  lines,
  by,
  at,
  step,
  onAt,
  onDown,
}: {
  of: Of;
  text: (n: number) => string;
  lines: readonly Stair[];
  by: By;
  at: number;
  step: Step | null;
  onAt: (at: number) => void;
  onDown: (line: Stair) => void;
}) {
  const { client, to } = useHere();
  const id = useId();
  const most = Math.max(1, ...lines.map((l) => l.whole));
  const shown: readonly Step[] = step ? [step] : toldOf(of, lines);
  const wide = { '--steps': shown.length } as React.CSSProperties;
  const costs = of === 'clicks';
  const titleOf = (s: Step) => STEPS[of].find(([step]) => step === s)?.[1] ?? s;
  return (
    <div
      className={css.lines}
      style={wide}
      role="grid"
      aria-label={`${of} by ${by}`}
      tabIndex={0}
      aria-activedescendant={lines[at] ? `stair-${at}` : undefined}
      onKeyDown={(event) => {
        const next = { ArrowDown: at + 1, ArrowUp: at - 1, Home: 0, End: lines.length - 1 }[event.key];
        const line = lines[at];
        if (next !== undefined) {
          event.preventDefault();
          onAt(Math.max(0, Math.min(lines.length - 1, next)));
        } else if ((event.key === 'Enter' || event.key === 'ArrowRight') && line) onDown(line);
      }}
    >
      <svg width="0" height="0" style={{ position: 'absolute' }} aria-hidden>
        <Hatches id={id} />
      </svg>
      <div className={css.heads} role="row">
        {[
          by,
          'where they went',
          of === 'clicks' ? 'clicks' : 'claimed',
          ...shown.map(titleOf),
          costs ? 'cost' : '',
        ].map((h) => (
          <span key={h} role="columnheader">
            {h}
          </span>
        ))}
      </div>
      {lines.map((l, i) => (
        <div
          key={l.key}
          id={`stair-${i}`}
          role="row"
          className={css.line}
          aria-selected={i === at}
          onClick={() => onAt(i)}
        >
          <span role="gridcell" title={l.name}>
            {by === 'ad' && l.key !== '' ? (
              <Link to={to(`trace/${l.key}`)}>{l.name}</Link>
            ) : (
              <button type="button" className={css.word} tabIndex={-1} onClick={() => onDown(l)}>
                {l.name || 'none'}
              </button>
            )}
            {l.marked && <em title="more is missing without a cause than is usual">!</em>}
          </span>
          <span role="gridcell">
            <svg width="100%" height="14" aria-hidden>
              {stepsOf(of, l).map((s) => (
                <rect
                  key={s.step}
                  x={`${(100 * (l.whole - s.to)) / most}%`}
                  width={`${(100 * (s.to - s.from)) / most}%`}
                  height="14"
                  fill={`url(#${id}-${s.step})`}
                />
              ))}
            </svg>
          </span>
          <span role="gridcell" className="num">
            {text(l.whole)}
          </span>
          {shown.map((s) => (
            <span key={s} role="gridcell" className="num">
              {sizeOf(l, s) === null ? (
                '?'
              ) : sizeOf(l, s) === 0 ? (
                <span className="quiet">0</span>
              ) : (
                text(sizeOf(l, s) ?? 0)
              )}
            </span>
          ))}
          <span role="gridcell" className="num">
            {l.cost !== null && money(l.cost, client.currency)}
          </span>
        </div>
      ))}
    </div>
  );
}
