import { useElementSize } from '@mantine/hooks';
import { useId } from 'react';
import { footOf, STEPS, stepsOf, type Of, type Stair, type Step } from './steps';
import css from './balance.module.css';

const HIGH = 210;
const FOOT = 34;

/** A whole as a stair: each loss a step down, hatched as what is hidden is; at its foot what is left. */
export function Stairs({
  of,
  stair,
  text,
  at,
  onAt,
}: {
  of: Of;
  stair: Stair;
  text: (n: number) => string;
  at: Step | null;
  onAt: (step: Step | null) => void;
}) {
  const { ref, width } = useElementSize();
  const id = useId();
  const steps = stepsOf(of, stair);
  const most = Math.max(1, stair.whole, footOf(of, stair));
  const each = Math.max(60, Math.min(170, width / (steps.length + 1)));
  const y = (n: number) => 8 + (1 - n / most) * (HIGH - FOOT - 8);
  const top = of === 'clicks' ? 'clicks' : 'claimed';
  const foot = of === 'clicks' ? 'arrived' : 'counted';
  const move = (by: number) => {
    const i = steps.findIndex((s) => s.step === at);
    onAt(steps[(i + by + steps.length) % steps.length]?.step ?? null);
  };
  return (
    <figure className={css.stairs} ref={ref}>
      <svg
        width="100%"
        height={HIGH}
        role="img"
        tabIndex={0}
        aria-label={`${text(stair.whole)} ${top}: ` + steps.map((s) => `${text(s.to - s.from)} ${s.title}`).join(', ')}
        onKeyDown={(event) => {
          const by = { ArrowRight: 1, ArrowLeft: -1 }[event.key];
          if (by === undefined) return;
          event.preventDefault();
          move(by);
        }}
      >
        <Hatches id={id} />
        <rect x={4} width={each - 12} y={y(stair.whole)} height={y(0) - y(stair.whole)} className={css.clicks} />
        <Label x={4 + (each - 12) / 2} title={top} n={text(stair.whole)} y={y(stair.whole)} />
        {steps.map((s, i) => {
          const x = 4 + (i + 1) * each;
          return (
            <g
              key={s.step}
              className={css.step}
              data-on={s.step === at || undefined}
              onClick={() => onAt(s.step === at ? null : s.step)}
            >
              <title>{s.means}</title>
              <line x1={x - 12} x2={x} y1={y(s.to)} y2={y(s.to)} className={css.tread} />
              {s.step !== foot && s.from > 0 && (
                <rect x={x} width={each - 12} y={y(s.from)} height={y(0) - y(s.from)} className={css.left} />
              )}
              <rect
                x={x}
                width={each - 12}
                y={y(s.to)}
                height={Math.max(1.5, y(s.from) - y(s.to))}
                fill={`url(#${id}-${s.step})`}
                className={css.part}
              />
              <Label x={x + (each - 12) / 2} title={s.title} n={text(s.to - s.from)} y={y(s.to)} />
            </g>
          );
        })}
      </svg>
    </figure>
  );
}

function Label({ x, y, title, n }: { x: number; y: number; title: string; n: string }) {
  return (
    <>
      <text x={x} y={Math.max(20, y + 16)} textAnchor="middle" className={css.count}>
        {n}
      </text>
      <text x={x} y={HIGH - 14} textAnchor="middle" className={css.title}>
        {title}
      </text>
    </>
  );
}

const MARKS: Partial<Record<Step, string>> = {
  broken: 'M0,7L7,0',
  untracked: 'M0,3.5H7',
  tracker: 'M0,0L7,7M0,7L7,0',
  withheld: 'M3.5,0V7',
  rest: 'M3,3h1v1h-1z',
  raw: 'M0,7L7,0M-2,2L2,-2',
  empty: 'M0,0L7,7',
  elsewhere: 'M0,2H7M0,5H7',
  unseen: 'M3,3h1v1h-1z',
  takenBack: 'M7,0L0,7M5,7L7,5',
  repeated: 'M0,0L7,7',
  outside: 'M3.5,0V7',
};

const ALL = [...new Map([...STEPS.clicks, ...STEPS.revenue].map(([step]) => [step, step])).values()];

export function Hatches({ id }: { id: string }) {
  return (
    <defs>
      {ALL.map((step) => (
        <pattern key={step} id={`${id}-${step}`} width="7" height="7" patternUnits="userSpaceOnUse">
          <rect width="7" height="7" className={css.ground} data-step={step} />
          {MARKS[step] && <path d={MARKS[step]} className={css.hatch} data-step={step} />}
        </pattern>
      ))}
    </defs>
  );
}
