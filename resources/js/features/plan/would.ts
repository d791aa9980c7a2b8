import type { Schema } from '../../api/client';

type Would = Schema['PlanConsequence'];

const SAMPLES = 5;

/** What some of an account's ads would become, with what others were found to. */
export function added(before: Would | null, more: Would): Would {
  if (before === null) return more;
  return {
    ...more,
    looked: before.looked + more.looked,
    proven: before.proven + more.proven,
    breaks: before.breaks + more.breaks,
    mends: before.mends + more.mends,
    samples: [...before.samples, ...more.samples].slice(0, SAMPLES),
  };
}

/** Asks for more until all ads have been looked at; what is known so far is handed on each time. */
export async function wholeOf(
  ask: (above: number | null) => Promise<Would>,
  onKnown: (soFar: Would) => void,
): Promise<Would> {
  let soFar = added(null, await ask(null));
  while (soFar.next !== null) {
    onKnown(soFar);
    soFar = added(soFar, await ask(soFar.next));
  }
  return soFar;
}
