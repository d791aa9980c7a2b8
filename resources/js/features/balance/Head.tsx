import type { ReactNode } from 'react';
import { AsMeant } from '../results/AsMeant';
import type { Of } from './steps';
import css from './balance.module.css';

const OF: readonly Of[] = ['clicks', 'conversions', 'revenue'];
type Meant = 'today' | 'then' | undefined;

/** Arrivals as they were meant, by the names of when; of what an address does not know, as they came. */
export const readMeant = (asked: string | null): Meant => (asked === 'today' || asked === 'then' ? asked : undefined);

const PERIODS = ['7', '28', '90'];

/** What an address asks for: one that it does not know is taken for clicks. */
export const readOf = (asked: string | null): Of => OF.find((o) => o === asked) ?? 'clicks';

/** What is held against what, and over how long: it stays where nothing is known yet. */
export function Head({
  of,
  last,
  onOf,
  onLast,
  onUp,
  meant,
  onMeant,
  children,
}: {
  of: Of;
  last: number;
  onOf: (of: Of) => void;
  onLast: (days: string) => void;
  onUp: (() => void) | null;
  meant: Meant;
  onMeant: (to: string) => void;
  children: ReactNode;
}) {
  return (
    <header>
      <h1>
        {children} <AsMeant meant={meant} onChange={(to) => onMeant(to ?? '')} />
      </h1>
      <span style={{ flex: 1 }} />
      {OF.map((o) => (
        <button key={o} type="button" className={css.link} aria-pressed={o === of} onClick={() => onOf(o)}>
          {o}
        </button>
      ))}
      <span className={css.gap} />
      {PERIODS.map((n) => (
        <button key={n} type="button" className={css.link} aria-pressed={n === String(last)} onClick={() => onLast(n)}>
          {n} days
        </button>
      ))}
      {onUp && (
        <button type="button" className={css.link} onClick={onUp}>
          up <kbd>⌫</kbd>
        </button>
      )}
    </header>
  );
}
