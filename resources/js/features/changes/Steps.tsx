import type { Schema } from '../../api/client';
import css from './changes.module.css';
import { many, num } from '../../lib/numbers';

type Change = Schema['Change'];
type Step = { name: string; state: 'done' | 'now' | 'next' | 'trouble'; words: string };

/**
 * How far a change is on its way, step by step, each with who and what.
 *
 * In place of Mantine's Stepper, whose steps are buttons through a form, done or not: these are read, and may be amiss.
 */
export function Steps({ change }: { change: Change }) {
  return (
    <ol className={css.steps} aria-label="how far it is">
      {stepsOf(change).map((s) => (
        <li key={s.name} data-state={s.state} aria-current={s.state === 'now' ? 'step' : undefined}>
          <b>{s.name}</b>
          <span>{s.words}</span>
        </li>
      ))}
    </ol>
  );
}

export function stepsOf(c: Change): Step[] {
  const at = (name: string) => c.progress[name] ?? 0;
  const written = at('written') + at('verified') + at('differs');
  const failed = at('failed') + at('differs');
  const drafting = c.status === 'drafting';
  const steps: Step[] = [{ name: 'Drafted', state: 'done', words: `by ${c.author}` }];
  if (c.status === 'failed') return [...steps, { name: 'Checked', state: 'trouble', words: 'could not be worked out' }];
  if (c.status === 'dropped') return [...steps, { name: 'Dropped', state: 'trouble', words: 'nothing was written' }];
  steps.push(
    drafting
      ? { name: 'Checked', state: 'now', words: working(c) }
      : {
          name: 'Checked',
          state: 'done',
          words: `${many(c.story?.writes ?? c.writes, 'write')}, every ad looked at`,
        },
  );
  if (c.approval.needed) {
    steps.push(
      c.approval.by
        ? { name: 'Approved', state: 'done', words: `by ${c.approval.by}` }
        : {
            name: 'Approved',
            state: drafting ? 'next' : 'now',
            words: c.approval.own ? 'another person has to' : 'look at the samples first',
          },
    );
  }
  const begun = !drafting && c.status !== 'ready';
  const trial = c.story?.trial;
  if (trial) {
    const name = trial.alone
      ? trial.ads.length === 1
        ? 'One ad first'
        : `${trial.ads.length} ads first`
      : 'A part first';
    if (c.trial)
      steps.push({
        name,
        state: c.trial.ok ? 'done' : 'trouble',
        words: c.trial.ok ? 'written, read back, clicked' : 'not as it should be',
      });
    else
      steps.push({
        name,
        state: begun ? 'now' : 'next',
        words: begun ? `${num(written)} of ${num(c.total)} written` : trial.ads.map((a) => a.name).join(', '),
      });
  }
  const rest = begun && c.stage === 'rest' && c.status !== 'tried';
  const ended = ['done', 'partly', 'taken-back'].includes(c.status);
  const held = c.status === 'paused' ? ', held' : c.status === 'handed-out' ? ', out as a sheet' : '';
  steps.push({
    name: trial ? 'The rest' : 'Applied',
    state: failed > 0 || (rest && c.status === 'stopped') ? 'trouble' : ended ? 'done' : rest ? 'now' : 'next',
    words: rest
      ? `${num(written)} of ${num(c.total)} written${held}${failed > 0 ? `, ${num(failed)} did not take` : ''}`
      : trial
        ? many(c.writes - trial.writes, 'write')
        : many(c.writes, 'write'),
  });
  const clicks = c.verified?.clicks.length ?? 0;
  steps.push(
    c.verified
      ? {
          name: 'Verified',
          state: c.verified.ok ? 'done' : 'trouble',
          words: `read back${clicks > 0 ? `, ${clicks} clicked` : ''}`,
        }
      : { name: 'Verified', state: 'next', words: 'read back and clicked' },
  );
  if (c.takenBackBy !== null || c.status === 'taken-back')
    steps.push({
      name: 'Taken back',
      state: 'done',
      words: c.takenBackBy === null ? '' : `by change ${c.takenBackBy}`,
    });
  return steps;
}

/** What is being done while a change is worked out, and for how many of its ads it has been. */
export function working(c: Schema['ChangeProgress']): string {
  if (c.through === 0) return c.step || 'waiting for a worker';
  const of = c.of >= c.through ? ` of ${num(c.of)}` : '';
  return `${c.step}: ${num(c.through)}${of} ads`;
}
