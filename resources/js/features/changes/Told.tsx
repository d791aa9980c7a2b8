import type { Schema } from '../../api/client';
import { RibbonLegend } from '../../components/Ribbon';
import { StateBar, type Counts } from '../../components/State';
import { adviceWords } from '../../lib/advice';
import { switchWords } from '../../lib/switches';
import { Sample } from './Sample';
import css from './changes.module.css';
import { many, num } from '../../lib/numbers';

interface Props {
  story: Schema['Story'];
  was: string;
  /** samples that are open; null: all are */
  opened: readonly number[] | null;
  onOpen: (node: number) => void;
}

/** What a change does: on how many ads, what it can't give, and samples before and after. */
export function Told({ story, was, opened, onOpen }: Props) {
  const before = story.states.before as unknown as Counts;
  const after = story.states.after as unknown as Counts;
  const closed = opened === null ? 0 : story.samples.filter((s) => !opened.includes(s.node)).length;
  return (
    <>
      {!story.early && (
        <div className={css.sums}>
          <div>
            <span>{was}</span>
            <StateBar {...before} />
            <span>{words(before)}</span>
          </div>
          <div>
            <span>after</span>
            <StateBar {...after} />
            <span>{words(after)}</span>
          </div>
          <p>
            <b>{num(story.writes)}</b> writes for <b>{num(story.ads)}</b> ads
            {story.customs > 0 && `, ${num(story.customs)} of them custom parameters`}
            {story.names > 0 && `, ${num(story.names)} of them names`}
            {story.overridden > 0 && `; ${num(story.overridden)} narrower texts are rewritten or cleared`}
            {story.reviewed > 0 && `; the platform will look at ${num(story.reviewed)} ads again, those come last`}.
          </p>
          {story.names > 0 && story.namesFreeze && (
            <p>
              This platform sends the name under which something was published: clicks and reports keep the old names of
              what is published already.
            </p>
          )}
          {story.switches.length > 0 && (
            <p className={css.switches}>
              It {story.switches.map((s) => switchWords(s, story.ads)).join('; it ')}. That touches every ad and can’t
              be tried on one: it is done first, before any text.
            </p>
          )}
          {story.trial && (
            <p>
              First on <b>{story.trial.ads.map((a) => a.name).join(', ')}</b>
              {story.trial.alone
                ? story.trial.asIf
                  ? ' alone: what wider levels will say is said on the ad for a while, and tidied up after.'
                  : ' alone.'
                : story.switches.length === story.trial.writes
                  ? ': nothing but the switch, then these are clicked.'
                  : ': the platform takes these texts on wider levels only, ' +
                    `so the trial touches ${num(story.trial.touches)} ads.`}
            </p>
          )}
        </div>
      )}
      {story.advice !== null && story.advice.length > 0 && (
        <section className={css.section}>
          <h2>What a give in the plan would save</h2>
          <ul className={css.unmet}>
            {story.advice.map((a) => (
              <li key={a.key}>
                <b className="mono">{a.key} </b>
                {adviceWords(a)}
              </li>
            ))}
          </ul>
        </section>
      )}
      {story.unmet.length > 0 && !story.early && (
        <section className={css.section}>
          <h2>What it can’t give</h2>
          <ul className={css.unmet}>
            {story.unmet.map((u) => (
              <li key={u.key + u.reason}>
                {u.key && <b className="mono">{u.key} </b>}
                {u.reason}
                {!/[.!?]$/.test(u.reason) && '.'}{' '}
                <span className="quiet">
                  {many(u.count, 'ad')}: {u.examples.join(', ')}
                  {u.count > u.examples.length && ' …'}
                </span>
              </li>
            ))}
          </ul>
        </section>
      )}
      <section className={css.section}>
        <div className={css.sectionHead}>
          <h2>
            {story.early ? 'A first look' : 'Before and after'}
            {closed > 0 && (
              <span className="quiet">
                {' '}
                · {story.samples.length - closed} of {story.samples.length} opened, <kbd>o</kbd> opens the next
              </span>
            )}
          </h2>
          <RibbonLegend />
        </div>
        {story.samples.map((s) => (
          <Sample
            key={s.node}
            sample={s}
            was={was}
            open={opened === null || opened.includes(s.node)}
            onOpen={() => onOpen(s.node)}
          />
        ))}
        {story.samples.length === 0 && <p className="quiet">Every ad keeps the plan already.</p>}
      </section>
    </>
  );
}

function words({ proven, broken, untracked }: Counts): string {
  return [
    proven && `${num(proven)} proven`,
    broken && `${num(broken)} broken`,
    untracked && `${num(untracked)} untracked`,
  ]
    .filter(Boolean)
    .join(', ');
}
