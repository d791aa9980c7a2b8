import type { Schema } from '../api/client';
import css from './findings.module.css';
import { num } from '../lib/numbers';

export type Finding = Schema['Finding'] & { id?: number; count?: number };

interface Props {
  findings: readonly Finding[];
  /** the one that the keyboard is at */
  at?: number;
  onPick?: (finding: Finding, index: number) => void;
  /** does what the fix says */
  onFix?: (finding: Finding) => void;
  label: string;
  /** what happens on a fix, in a word or two */
  fixWords?: string;
}

const MARKS = { error: '✕', warning: '▲', note: '·' } as const;

/** What is wrong, the worst first: mark, reason, where, how often, and the fix where one could be computed. */
export function FindingList({ findings, at, onPick, onFix, label, fixWords = 'fix' }: Props) {
  return (
    <ol className={css.list} aria-label={label}>
      {findings.map((f, i) => (
        <li
          key={`${f.code} ${f.node} ${f.slot} ${f.custom} ${f.at} ${f.key} ${i}`}
          className={`${css.item} ${i === at ? css.on : ''}`}
          data-severity={f.severity}
          data-code={f.code}
          onClick={() => onPick?.(f, i)}
        >
          <span className={css.mark} role="img" aria-label={f.severity}>
            {MARKS[f.severity]}
          </span>
          <div>
            <span>{f.reason}</span>
            <span className={css.where}>
              <code>{f.code}</code>
              {f.name && ` · ${f.level} “${f.name}”`}
              {f.slot && ` · ${f.slot}${f.custom ? ` ${f.custom}` : ''}`}
            </span>
            {f.fix && onFix && (
              <button
                type="button"
                className={css.fix}
                onClick={(e) => {
                  e.stopPropagation();
                  onFix(f);
                }}
              >
                {fixWords}: {f.fix.says}
                {i === at && <kbd>f</kbd>}
              </button>
            )}
          </div>
          {f.count !== undefined && <span className={css.count}>{num(f.count)}</span>}
        </li>
      ))}
    </ol>
  );
}

/** A text with the stretch that a finding is about set off. */
export function Stretch({ text, at, length }: { text: string; at: number | null; length: number | null }) {
  if (at === null) return <>{text}</>;
  // offsets are bytes of UTF-8
  const bytes = new TextEncoder().encode(text);
  const cut = (from: number, to?: number) => new TextDecoder().decode(bytes.slice(from, to));
  return (
    <>
      {cut(0, at)}
      <mark className={css.stretch}>{cut(at, at + (length ?? 0))}</mark>
      {cut(at + (length ?? 0))}
    </>
  );
}
