import type { Schema } from '../../api/client';
import { many } from '../../lib/numbers';

export const STATUS: Record<Schema['ChangeStatus'], string> = {
  drafting: 'being worked out',
  ready: 'worked out',
  trying: 'being tried',
  tried: 'tried',
  applying: 'being applied',
  paused: 'held',
  'handed-out': 'out as a sheet',
  done: 'applied and read back',
  partly: 'applied in part',
  stopped: 'stopped',
  'taken-back': 'taken back',
  dropped: 'dropped',
  failed: 'failed',
};

/** Something is going on that a person can watch. */
export const RUNNING: readonly Schema['ChangeStatus'][] = ['drafting', 'trying', 'applying'];

export type Step = Schema['Step'];

/** Does it wait for another person's yes? */
export function waitsForApproval(c: Schema['Change']): boolean {
  return c.approval.needed && c.approval.by === null && c.status === 'ready';
}

/** The words on the button that starts it or goes on. */
export function startWords(c: Schema['Change']): string {
  if (c.status === 'ready')
    return c.stage === 'trial'
      ? `Try it on ${c.story?.trial?.ads.length === 1 ? 'one ad' : `${c.story?.trial?.ads.length ?? 0} ads`}`
      : `Apply ${many(c.total, 'write')}`;
  if (c.status === 'tried') return `Apply the rest, ${many(c.total - (c.progress.verified ?? 0), 'write')}`;
  return 'Go on from here';
}
