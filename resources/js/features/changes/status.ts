import type { Schema } from '../../api/client';

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

type Status = Schema['ChangeStatus'];
const TAKES_BACK: readonly Status[] = ['tried', 'paused', 'stopped', 'partly', 'done'];
const GOES_ON: readonly Status[] = ['ready', 'tried', 'paused', 'stopped', 'partly'];

/** What a person can do with a change now. */
export function acts(c: Schema['Change'], mayEdit: boolean, mayReview: boolean) {
  const waits = c.approval.needed && c.approval.by === null && c.status === 'ready';
  return {
    start: mayEdit && GOES_ON.includes(c.status) && c.total > 0 && !waits && !(c.status === 'ready' && !c.planIsCurrent),
    approve: mayReview && waits && !c.approval.own,
    refuse: mayReview && c.status === 'ready' && !c.approval.own && c.approval.needed,
    pause: mayEdit && (c.status === 'trying' || c.status === 'applying'),
    stop: mayEdit && c.stage === 'rest' && (c.status === 'applying' || c.status === 'paused'),
    takeBack: mayEdit && TAKES_BACK.includes(c.status) && c.takenBackBy === null,
    drop: mayEdit && (c.status === 'drafting' || c.status === 'ready'),
    again: mayEdit && ['ready', 'dropped', 'failed'].includes(c.status),
    waits,
  };
}

/** The words on the button that starts it or goes on. */
export function startWords(c: Schema['Change']): string {
  if (c.status === 'ready') return c.stage === 'trial' ? `Try it on ${c.story?.trial?.ads.length === 1 ? 'one ad' : `${c.story?.trial?.ads.length ?? 0} ads`}` : `Apply ${c.total} writes`;
  if (c.status === 'tried') return `Apply the rest, ${c.total - (c.progress.verified ?? 0)} writes`;
  return 'Go on from here';
}
