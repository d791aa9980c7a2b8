import type { Schema } from '../api/client';
import css from './small.module.css';
import { num } from '../lib/numbers';

type StateName = Schema['State'];

const PATHS: Record<StateName, React.ReactNode> = {
  proven: <path d="M1.5 5.5 4 8l4.5-6" fill="none" stroke="currentColor" strokeWidth="2" />,
  broken: <path d="M1.5 1.5l7 7m0-7l-7 7" fill="none" stroke="currentColor" strokeWidth="2" />,
  untracked: <circle cx="5" cy="5" r="3.4" fill="none" stroke="currentColor" strokeWidth="1.6" />,
};

/** Proven, broken or untracked: a mark with its own shape, and the word. */
export function State({ state, wordless = false }: { state: StateName; wordless?: boolean }) {
  return (
    <span className={`${css.state} ${css[state]}`}>
      <svg className={css.mark} viewBox="0 0 10 10" aria-hidden={!wordless} role="img" aria-label={state}>
        {PATHS[state]}
      </svg>
      {!wordless && state}
    </span>
  );
}

export interface Counts {
  proven: number;
  broken: number;
  untracked: number;
}

/** How many ads are proven, broken and untracked, as one bar. */
export function StateBar({ proven, broken, untracked }: Counts) {
  const all = proven + broken + untracked;
  const part = (n: number) => ({ width: all === 0 ? '0' : `${(100 * n) / all}%` });
  return (
    <span
      className={css.bar}
      role="img"
      aria-label={`${num(proven)} proven, ${num(broken)} broken, ${num(untracked)} untracked`}
    >
      <span className={css.barProven} style={part(proven)} />
      <span className={css.barBroken} style={part(broken)} />
      <span className={css.barUntracked} style={part(untracked)} />
    </span>
  );
}
