import type { Schema } from '../../api/client';
import type { Parameter } from './planText';
import css from './plan.module.css';

type Finding = Schema['PlanFinding'];

/** A cell of a key: what it says, what it falls back on, or what it says on one platform. */
export interface Spot {
  fallback?: number;
  platform?: string;
}

/** Is a finding about this cell? What is said everywhere is told there, not on every platform. */
export function isAt(finding: Finding, spot: Spot, parameter: Parameter): boolean {
  if (finding.fallback !== null) return spot.fallback === finding.fallback;
  if (finding.platform !== null) {
    return spot.platform === finding.platform && (finding.code === 'wrong-channel' || hasOwn(parameter, spot.platform));
  }
  return spot.fallback === undefined && spot.platform === undefined;
}

const hasOwn = (parameter: Parameter, platform: string): boolean => parameter.platforms?.[platform] !== undefined;

/** The cell with another text. */
export function fixed(parameter: Parameter, spot: Spot, text: string): Partial<Parameter> {
  const parts = [{ text }];
  if (spot.platform !== undefined) return { platforms: { ...parameter.platforms, [spot.platform]: { parts } } };
  if (spot.fallback === undefined) return { parts };
  return { fallback: (parameter.fallback ?? []).map((f, i) => (i === spot.fallback ? parts : f)) };
}

/** What is wrong with a cell of the plan. */
export function Wrong({ findings, onFix }: { findings: readonly Finding[]; onFix?: (text: string) => void }) {
  if (findings.length === 0) return null;
  return (
    <ul className={css.wrong}>
      {findings.map((f, at) => (
        <li key={f.code + f.reason} data-severity={f.severity}>
          {f.reason}
          {f.fix && onFix && f.fix.text !== findings[at - 1]?.fix?.text && (
            <button type="button" onClick={() => onFix(f.fix!.text)}>
              {f.fix.says}
            </button>
          )}
        </li>
      ))}
    </ul>
  );
}
