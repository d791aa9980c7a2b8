import { useQuery } from '@tanstack/react-query';
import { useId, useMemo, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { api, data, type Schema } from '../../api/client';
import { Empty, Notice } from '../../components/Notice';
import { money, num } from '../../lib/numbers';
import { keyOf } from '../../lib/queries';
import { useHere } from '../../lib/useClient';
import { useKeys } from '../../lib/useKeys';
import { daysOf, readDays, today } from '../results/question';
import { Hatches, Stairs } from './Stairs';
import { lostShare, sizeOf, STEPS, stepsOf, type Step } from './steps';
import css from './balance.module.css';

type By = 'platform' | 'account' | 'campaign' | 'ad';
type Line = Schema['BalanceLine'];

const BELOW: Record<By, By | null> = { platform: 'account', account: 'campaign', campaign: 'ad', ad: null };
const PERIODS = [7, 28, 90] as const;

/** One of the levels that have been gone down: what stood there. */
interface Down {
  by: By;
  key: string;
  name: string;
}

/** Where the clicks have gone that were paid for: a stair down to those that arrived as agreed. */
export default function BalancePage() {
  const { client, to } = useHere();
  const [address, setAddress] = useSearchParams();
  const [down, setDown] = useState<readonly Down[]>([]);
  const [step, setStep] = useState<Step | null>(null);
  const [at, setAt] = useState(0);
  const last = Number(address.get('last')) || 28;
  const days = daysOf({ last }, today(client.timeZone));
  const here = down.at(-1);
  const by: By = here ? (BELOW[here.by] ?? 'ad') : 'platform';
  const balance = useQuery({
    queryKey: keyOf('balance', client.id, days, by, here?.by, here?.key),
    queryFn: () =>
      data(
        api.GET('/clients/{client}/balance', {
          params: {
            path: { client: client.id },
            query: { ...days, by, ...(here ? { [here.by]: here.key } : {}) },
          },
        }),
      ),
    placeholderData: (before) => before,
    refetchInterval: (query) => (query.state.data?.total ? 60_000 : 5000),
  });
  const up = () => {
    setDown(down.slice(0, -1));
    setAt(0);
  };
  useKeys(useMemo(() => ({ Backspace: () => setDown((d) => d.slice(0, -1)), Escape: () => setStep(null) }), []));
  if (balance.error) return <Notice>{balance.error.message}</Notice>;
  if (!balance.data) return null;
  const { total, lines, more, provisional } = balance.data;
  if (!total || total.clicks + total.arrived === 0) {
    return (
      <Empty title="No click is known of these days" action={<Link to={to('results')}>What arrived</Link>}>
        Platforms tell their clicks by the hour, once an account has been brought in through a connection.
      </Empty>
    );
  }
  const told = stepsOf(total).find((s) => s.step === step);
  return (
    <div className={css.page}>
      <header>
        <h1>
          Of <b>{num(total.clicks)}</b> clicks{' '}
          {down.length > 0 && (
            <>
              on{' '}
              {down.map((d, i) => (
                <button key={d.key} type="button" className={css.word} onClick={() => setDown(down.slice(0, i + 1))}>
                  {d.name}
                </button>
              ))}{' '}
            </>
          )}
          <b>{num(total.arrived)}</b> arrived as agreed{' '}
          <span className="quiet">
            {Math.round(100 * lostShare(total))} % did not; {readDays(days)}
          </span>
        </h1>
        <span style={{ flex: 1 }} />
        {PERIODS.map((n) => (
          <button
            key={n}
            type="button"
            className={css.link}
            aria-pressed={n === last}
            onClick={() => setAddress({ last: String(n) })}
          >
            {n} days
          </button>
        ))}
        {here && (
          <button type="button" className={css.link} onClick={up}>
            up <kbd>⌫</kbd>
          </button>
        )}
      </header>
      <Stairs stair={total} at={step} onAt={setStep} />
      <p className={css.said}>
        {told ? (
          <>
            <b>
              {num(told.to - told.from)} {told.title}
            </b>
            : {told.means}.{' '}
            {told.step === 'elsewhere' &&
              Object.entries(total.elsewhere)
                .sort((a, b) => b[1] - a[1])
                .map(([channel, n]) => `${num(n)} as ${channel}`)
                .join(', ')}
            {(told.step === 'broken' || told.step === 'untracked') && <Link to={to('audit')}>mend them</Link>}
          </>
        ) : (
          <span className="quiet">
            {total.surplus !== null && `${num(total.surplus)} more arrived than were paid for. `}
            {total.repeats > 0 && `Beside the sum: ${num(total.repeats)} views of clicks that were seen before. `}
            {total.marked && 'More is missing without a cause than is usual (5 to 15 %). '}
            {days.to >= provisional && 'Of the last days platforms say more later. '}
            {total.withheld === null && down.length > 0 && 'Consent is counted for all together alone. '}
          </span>
        )}
      </p>
      <Table
        lines={lines}
        by={by}
        at={at}
        step={step}
        onAt={setAt}
        onDown={(line) => {
          if (BELOW[by] === null) return;
          setDown([...down, { by, key: line.key, name: line.name || 'none' }]);
          setAt(0);
        }}
      />
      {more > 0 && <p className={css.said}>{num(more)} more with fewer clicks</p>}
    </div>
  );
}

function Table({
  lines,
  by,
  at,
  step,
  onAt,
  onDown,
}: {
  lines: readonly Line[];
  by: By;
  at: number;
  step: Step | null;
  onAt: (at: number) => void;
  onDown: (line: Line) => void;
}) {
  const { client, to } = useHere();
  const id = useId();
  const most = Math.max(1, ...lines.map((l) => l.clicks));
  const shown: readonly Step[] = step ? [step] : ['broken', 'untracked', 'rest', 'elsewhere', 'arrived'];
  const wide = { '--steps': shown.length } as React.CSSProperties;
  const titleOf = (s: Step) => STEPS.find(([of]) => of === s)?.[1] ?? s;
  return (
    <div
      className={css.lines}
      style={wide}
      role="grid"
      aria-label={`clicks by ${by}`}
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
        {[by, 'where they went', 'clicks', ...shown.map(titleOf), 'cost'].map((h) => (
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
              {stepsOf(l).map((s) => (
                <rect
                  key={s.step}
                  x={`${(100 * (l.clicks - s.to)) / most}%`}
                  width={`${(100 * (s.to - s.from)) / most}%`}
                  height="14"
                  fill={`url(#${id}-${s.step})`}
                />
              ))}
            </svg>
          </span>
          <span role="gridcell" className="num">
            {num(l.clicks)}
          </span>
          {shown.map((s) => (
            <span key={s} role="gridcell" className="num">
              {sizeOf(l, s) === null ? '?' : num(sizeOf(l, s) ?? 0)}
            </span>
          ))}
          <span role="gridcell" className="num">
            {money(l.cost, client.currency)}
          </span>
        </div>
      ))}
    </div>
  );
}
