import type { ReactNode } from 'react';
import type { Of } from './steps';
import css from './balance.module.css';

const OF: readonly Of[] = ['clicks', 'conversions', 'revenue'];
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
  children,
}: {
  of: Of;
  last: number;
  onOf: (of: Of) => void;
  onLast: (days: string) => void;
  onUp: (() => void) | null;
  children: ReactNode;
}) {
  return (
    <header>
      <h1>{children}</h1>
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
