import { useElementSize } from '@mantine/hooks';
import { useQuery } from '@tanstack/react-query';
import { useId, useState } from 'react';
import { api, data } from '../../api/client';
import { keyOf } from '../../lib/queries';
import { useHere } from '../../lib/useClient';
import { MEASURES, read, type Sums } from './measures';
import { laid, scaleOf, type Layer } from './layers';
import { daysIn, isTime, nothingOf, stepOf, titleOf, type Question } from './question';
import { Cores, CORES, HEIGHT } from './Cores';
import { Patterns, Swatch } from './Swatch';
import type { Results } from './useLines';
import css from './results.module.css';

/** So many lines are told apart; the rest is one layer. */
export const LAYERS = 5;

const AXIS = 20;
const LEFT = 54;
const OTHERS = '\0';

/**
 * The answer as strata: the lines of the table as layers over time, and beside them two cores, the days before and
 * these, in which each layer can be followed from one to the other.
 */
export function Picture({
  question,
  days,
  first,
}: {
  question: Question;
  days: { from: string; to: string };
  first: Results;
}) {
  const { client } = useHere();
  const { ref, width } = useElementSize();
  const id = useId();
  const [at, setAt] = useState<number | null>(null);
  const by = question.by[0];
  const own = isTime(by);
  const step = own && by ? by : stepOf(days);
  const keys = own ? [] : first.lines.slice(0, LAYERS).map((l) => l.by[0] ?? '');
  const body = {
    ...days,
    order: 'name' as const,
    up: true,
    limit: 1000,
    where: [...question.where, ...(by && keys.length > 0 ? [{ by, is: keys }] : [])],
    by: own || !by ? [step] : [step, by],
    reading: question.reading ?? null,
  };
  const whole = { ...body, by: [step], where: question.where };
  const parts = useQuery({
    queryKey: keyOf('results', client.id, 'picture', body),
    queryFn: () => data(api.POST('/clients/{client}/results', { params: { path: { client: client.id } }, body })),
    staleTime: 60_000,
    enabled: by !== undefined,
  });
  const all = useQuery({
    queryKey: keyOf('results', client.id, 'time', whole),
    queryFn: () =>
      data(api.POST('/clients/{client}/results', { params: { path: { client: client.id } }, body: whole })),
    staleTime: 60_000,
  });
  const { adds, of } = MEASURES[question.measure];
  const value = (sums: Sums | undefined) => (sums ? (of(sums, client.currency) ?? 0) : 0);
  const steps = all.data?.lines.map((l) => l.by[0] ?? '') ?? [];
  const told = new Map(parts.data?.lines.map((l) => [l.by.join('\0'), l.now]));
  const layers: Layer[] = keys.map((key) => ({
    key,
    values: steps.map((s) => value(told.get(`${s}\0${key}`))),
  }));
  const sums = all.data?.lines.map((l) => value(l.now)) ?? [];
  if (adds || own)
    layers.push({
      key: OTHERS,
      values: sums.map((sum, i) => sum - layers.reduce((part, l) => part + (l.values[i] ?? 0), 0)),
    });
  const nameOf = (key: string) =>
    key === OTHERS ? (own ? 'all' : 'the others') : key === '' && by ? nothingOf(by) : (first.names[0]?.[key] ?? key);
  const stacked = laid(layers, steps.length);
  const most = adds ? stacked.top : Math.max(0, ...layers.flatMap((l) => l.values));
  const scale = scaleOf(most);
  const hasCores = first.total.before !== undefined && adds && !own;
  const wide = Math.max(120, width - LEFT - (hasCores ? CORES + 46 : 32));
  const high = HEIGHT - AXIS;
  const x = (i: number) => LEFT + (steps.length < 2 ? wide / 2 : (i * wide) / (steps.length - 1));
  const y = (v: number) => high - (v / scale.top) * (high - 6);
  const cursor = at === null ? null : Math.min(at, steps.length - 1);
  const move = (to: number) => setAt(Math.max(0, Math.min(steps.length - 1, to)));
  const summary =
    `${MEASURES[question.measure].title} by ${step}` +
    (own || !by ? '' : `, the largest of ${titleOf(by)} as layers: ${keys.map(nameOf).join(', ')}`);
  return (
    <figure className={css.picture} ref={ref} aria-label="the answer as a picture">
      <figcaption>
        {cursor === null || steps[cursor] === undefined ? (
          <span className="quiet">
            {MEASURES[question.measure].title} by {step}, {daysIn(days)} days
            {adds && !own && `; in all ${read(question.measure, value(first.total.now), client.currency)}`}
          </span>
        ) : (
          <>
            <b>{steps[cursor]}</b>{' '}
            {adds && <span className="num">{read(question.measure, sums[cursor] ?? 0, client.currency)}</span>}
            {layers.map((l, i) => (
              <span key={l.key}>
                <Swatch id={id} at={l.key === OTHERS ? LAYERS : i} /> {nameOf(l.key)}{' '}
                <span className="num">{read(question.measure, l.values[cursor] ?? 0, client.currency)}</span>
              </span>
            ))}
          </>
        )}
      </figcaption>
      <svg
        width="100%"
        height={HEIGHT}
        role="img"
        aria-label={summary}
        tabIndex={0}
        onKeyDown={(event) => {
          const to = {
            ArrowRight: (cursor ?? -1) + 1,
            ArrowLeft: (cursor ?? steps.length) - 1,
            Home: 0,
            End: steps.length,
          }[event.key];
          if (to !== undefined) {
            event.preventDefault();
            move(to);
          }
        }}
        onBlur={() => setAt(null)}
        onPointerLeave={() => setAt(null)}
        onPointerMove={(event) => {
          const here = event.clientX - event.currentTarget.getBoundingClientRect().left;
          if (here < LEFT - 6 || here > LEFT + wide + 6) setAt(null);
          else move(Math.round(((here - LEFT) / wide) * (steps.length - 1)));
        }}
      >
        <Patterns id={id} />
        {Array.from({ length: Math.round(scale.top / scale.step) + 1 }, (_, n) => n * scale.step).map((v) => (
          <g key={v}>
            <line x1={LEFT} x2={LEFT + wide} y1={y(v)} y2={y(v)} className={css.rule} />
            <text x={LEFT - 6} y={y(v) + 3.5} textAnchor="end" className={css.tick}>
              {v === 0 ? '0' : read(question.measure, v, client.currency)}
            </text>
          </g>
        ))}
        {adds
          ? stacked.laid.map((l, i) => (
              <path
                key={l.key}
                className={css.layer}
                fill={`url(#${id}-${l.key === OTHERS ? LAYERS : i})`}
                d={area(l.from, l.to, x, y, wide)}
              />
            ))
          : layers.map((l, i) => (
              <polyline
                key={l.key}
                className={css.trend}
                data-at={l.key === OTHERS ? LAYERS : i}
                points={l.values.map((v, n) => `${x(n)},${y(v)}`).join(' ')}
              />
            ))}
        {ticksOf(steps, wide).map((i) => (
          <text key={steps[i]} x={x(i)} y={HEIGHT - 5} textAnchor="middle" className={css.tick}>
            {shortOf(steps[i] ?? '', step)}
          </text>
        ))}
        {cursor !== null && <line x1={x(cursor)} x2={x(cursor)} y1={0} y2={high} className={css.cursor} />}
        {hasCores && (
          <Cores
            id={id}
            left={LEFT + wide + 30}
            high={high}
            layers={[...keys, ...(first.lines.length > LAYERS || first.others ? [OTHERS] : [])].map((key, i) => ({
              at: key === OTHERS ? LAYERS : i,
              ...(key === OTHERS
                ? restOf(first, keys, value)
                : { now: value(first.lines[i]?.now), before: value(first.lines[i]?.before) }),
            }))}
          />
        )}
      </svg>
    </figure>
  );
}

function restOf(first: Results, keys: readonly string[], value: (sums: Sums | undefined) => number) {
  const shown = first.lines.slice(0, keys.length);
  const rest = (which: 'now' | 'before') =>
    value(first.total[which]) - shown.reduce((sum, l) => sum + value(l[which]), 0);
  return { now: rest('now'), before: rest('before') };
}

function area(
  from: readonly number[],
  to: readonly number[],
  x: (i: number) => number,
  y: (v: number) => number,
  wide: number,
): string {
  if (to.length === 1) {
    const half = Math.min(60, wide / 4);
    return `M${x(0) - half},${y(from[0] ?? 0)}V${y(to[0] ?? 0)}h${2 * half}V${y(from[0] ?? 0)}Z`;
  }
  const above = to.map((v, i) => `${x(i)},${y(v)}`);
  const below = from.map((v, i) => `${x(i)},${y(v)}`).reverse();
  return `M${[...above, ...below].join('L')}Z`;
}

function ticksOf(steps: readonly string[], wide: number): number[] {
  const most = Math.max(2, Math.floor(wide / 76));
  const each = Math.max(1, Math.ceil(steps.length / most));
  return steps.map((_, i) => i).filter((i) => i % each === 0);
}

const DAY = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', timeZone: 'UTC' });
const MONTH = new Intl.DateTimeFormat('en-GB', { month: 'short', year: '2-digit', timeZone: 'UTC' });
const shortOf = (at: string, step: string): string =>
  step === 'day'
    ? DAY.format(new Date(`${at}T00:00:00Z`))
    : step === 'month'
      ? MONTH.format(new Date(`${at}-01T00:00:00Z`))
      : at.slice(5);
