import type { Schema } from '../../api/client';

export type Rule = Schema['FeedRule'];
export type Test = NonNullable<Rule['when']>[number];
export type Step = Rule['do'][number];
export type Part = NonNullable<Step['parts']>[number];
export type Reads = Schema['FeedReads'];

/** How a cell may be compared, as people say it. */
export const COMPARISONS = {
  in: 'is one of',
  has: 'has in it',
  begins: 'begins with',
  ends: 'ends with',
  matches: 'matches',
  empty: 'is empty',
  filled: 'is not empty',
  over: 'is over',
  under: 'is under',
} as const;
export type Comparison = keyof typeof COMPARISONS;

export const STEPS = { set: 'set', add: 'set if it is not there', take: 'take away', rename: 'rename' } as const;
export type StepKind = keyof typeof STEPS;

export const comparisonOf = (test: Test): Comparison => {
  if (test.empty !== undefined) return test.empty ? 'empty' : 'filled';
  return (
    (Object.keys(COMPARISONS) as Comparison[]).find((how) => (test as Record<string, unknown>)[how] !== undefined) ??
    'in'
  );
};

/** What a cell is compared with, as it is typed: words with `|` between. */
export const comparedWith = (test: Test): string => {
  if (test.in) return test.in.join(' | ');
  return String(test.has ?? test.begins ?? test.ends ?? test.matches ?? test.over ?? test.under ?? '');
};

export function testOf(column: string, how: Comparison, typed: string, exact?: boolean): Test {
  const rest = exact ? { column, exact } : { column };
  switch (how) {
    case 'in':
      return {
        ...rest,
        in: typed
          .split('|')
          .map((word) => word.trim())
          .filter((word, i, all) => word !== '' || (all.length === 1 && i === 0)),
      };
    case 'empty':
    case 'filled':
      return { ...rest, empty: how === 'empty' };
    case 'over':
    case 'under':
      return { ...rest, [how]: Number(typed.replace(/[\s,]/g, '')) || 0 };
    default:
      return { ...rest, [how]: typed };
  }
}

export const stepKindOf = (step: Step): StepKind =>
  (Object.keys(STEPS) as StepKind[]).find((kind) => step[kind] !== undefined) ?? 'set';

export const keyOfStep = (step: Step): string => step[stepKindOf(step)] ?? '';

/** A value as it is typed: text, with columns between angles, `crossings-‹island slug›`. */
export const typedParts = (parts: readonly Part[] | undefined): string =>
  (parts ?? [])
    .map((part) =>
      part.column === undefined ? (part.text ?? '') : `‹${part.column}${part.shape === 'slug' ? ' slug' : ''}›`,
    )
    .join('');

export const partsOf = (typed: string): Part[] =>
  typed
    .split(/(‹[^›]+›)/)
    .filter((piece) => piece !== '')
    .map((piece): Part => {
      const column = /^‹(.+?)( slug)?›$/.exec(piece);
      if (!column) return { text: piece };
      return column[2] ? { column: column[1]!, shape: 'slug' } : { column: column[1]! };
    });

export function stepOf(kind: StepKind, key: string, typed: string): Step {
  switch (kind) {
    case 'take':
      return { take: key };
    case 'rename':
      return { rename: key, to: typed };
    default:
      return { [kind]: key, parts: partsOf(typed) };
  }
}

/** What is typed beside a step's key. */
export const typedValue = (step: Step): string =>
  step.rename !== undefined ? (step.to ?? '') : typedParts(step.parts);

/** Is there enough of it for the server to try it? */
export const isWhole = (rule: Rule): boolean =>
  (rule.when ?? []).every(
    (t) => t.column !== '' && (t.in ?? [t.has ?? t.begins ?? t.ends ?? t.matches ?? 'x']).join('') !== '',
  ) && rule.do.every((s) => keyOfStep(s) !== '' && (s.rename === undefined || (s.to ?? '') !== ''));

/** What the plan says of a key in plain text, on whatever platform: values that a list's links may have too. */
export function plainIn(plan: Schema['PlanDocument'] | null | undefined, key: string): string[] {
  const parameter = plan?.parameters.find((p) => p.key === key);
  const all = [parameter, ...Object.values(parameter?.platforms ?? {})] as { parts?: { text?: string }[] }[];
  const texts = all.map((some) => some?.parts).filter((parts) => parts?.length === 1);
  return [...new Set(texts.flatMap((parts) => parts?.[0]?.text ?? []))].filter((text) => text !== '');
}

export const FIRST: Rule = { title: '', do: [{ set: 'utm_source', parts: [] }] };
