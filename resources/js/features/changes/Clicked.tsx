import type { Schema } from '../../api/client';
import css from './changes.module.css';

type Click = Schema['TestClick'];

/** Test clicks, each with its two answers: did every hop answer, and did the page arrive with everything on it. */
export function Clicked({ title, clicks }: { title: string; clicks: readonly Click[] }) {
  return (
    <section className={css.section}>
      <h2>{title}</h2>
      {clicks.map((c) => (
        <RealClick key={c.clickId} click={c} />
      ))}
    </section>
  );
}

export function RealClick({ click }: { click: Click }) {
  return (
    <div className={css.click} data-testid="test-click">
      <div className={css.clickHead}>
        <b>{click.name}</b>
        <span className="quiet">{click.where}</span>
        <Answer
          good={click.answered}
          words={click.answered ? answered(click.steps.length - 1) : 'did not get to the page'}
        />
        <Answer
          good={click.arrived}
          words={
            click.arrived
              ? 'everything arrived'
              : click.foreseen
                ? 'not everything arrived, as the texts have it'
                : click.answered
                  ? 'not everything arrived'
                  : 'so nothing arrived'
          }
        />
      </div>
      <ol className={css.hops}>
        {click.steps.map((s, i) => (
          <li key={i} data-bad={s.problem !== null || undefined}>
            <span className="num">{s.status ?? '—'}</span>
            <span className="num quiet">{s.ms} ms</span>
            <span className="mono">{s.url}</span>
            {s.problem && <em>{s.problem}</em>}
          </li>
        ))}
      </ol>
      {click.answered && click.faults.length > 0 && (
        <ul className={css.unmet}>
          {click.faults.map((f) => (
            <li key={f.key + f.reason}>{f.reason}</li>
          ))}
        </ul>
      )}
    </div>
  );
}

function Answer({ good, words }: { good: boolean; words: string }) {
  return (
    <span className={css.answer} data-good={good}>
      <i aria-hidden>{good ? '✓' : '✕'}</i> {words}
    </span>
  );
}

function answered(hops: number): string {
  return hops === 0 ? 'the page answered' : `${hops} ${hops === 1 ? 'hop' : 'hops'} and the page answered`;
}
