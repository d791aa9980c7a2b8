import type { Schema } from '../../api/client';
import { Ribbon } from '../../components/Ribbon';
import { withoutHost } from '../../components/withoutHost';
import { many, num } from '../../lib/numbers';
import type { Rule } from './rules';
import css from './feeds.module.css';

type Tally = Schema['FeedTally'];

/** What rules make of a list: where its listings are counted, what is wrong, and samples of everything. */
export function Made({ tally, rules }: { tally: Tally; rules: readonly Rule[] }) {
  return (
    <>
      <h2>
        {tally.isAll ? '' : 'of the first '}
        {many(tally.items, 'item')}, {num(tally.changed)} {tally.changed === 1 ? 'is' : 'are'} changed
      </h2>
      {(['paid', 'unpaid'] as const).map((kind) => (
        <Channels key={kind} kind={kind} of={tally.channels[kind]} />
      ))}
      {tally.problems.length > 0 && (
        <ul className={css.problems} aria-label="what is wrong">
          {tally.problems.map((p) => (
            <li key={`${p.code} ${p.column}`} data-mild={p.code === 'empty-column' || undefined}>
              <b>{num(p.items)}</b> {p.says}
              {p.column && <span className="mono"> {p.column}</span>}
              <span className="quiet">: {p.ids.filter((id) => id !== '').join(', ')}</span>
            </li>
          ))}
        </ul>
      )}
      {tally.combinations.length > 1 && (
        <>
          <h3>rules that take an item together</h3>
          <ul className={css.together}>
            {tally.combinations.slice(0, 12).map((c) => (
              <li key={c.rules.join()}>
                <span className="num">{num(c.items)}</span>
                {rules.map((rule, i) => (
                  <i key={i} data-on={c.rules.includes(i) || undefined} title={rule.title}>
                    {i + 1}
                  </i>
                ))}
              </li>
            ))}
          </ul>
        </>
      )}
      <h3>{many(tally.samples.length, 'sample')} that show every rule, every combination and every problem</h3>
      <ol className={css.shown}>
        {tally.samples.map((sample, i) => (
          <li key={i}>
            <header>
              <b className="mono">{sample.id || 'no number'}</b>
              <span className="quiet">{sample.rules.map((r) => r + 1).join(', ') || 'no rule'}</span>
              {sample.problems.map((p) => (
                <em key={p}>{p}</em>
              ))}
            </header>
            {sample.links.map((l) => (
              <div key={l.column} className={css.link2}>
                <small>{l.kind}</small>
                {l.after ? (
                  <Ribbon segments={withoutHost(l.after)} compact />
                ) : (
                  <span className="quiet">{l.before || 'nothing there'}</span>
                )}
              </div>
            ))}
          </li>
        ))}
      </ol>
    </>
  );
}

function Channels({ kind, of }: { kind: 'paid' | 'unpaid'; of: Schema['FeedChannels'] }) {
  const all = of.reduce((sum, c) => sum + c.links, 0);
  if (all === 0) return null;
  return (
    <div className={css.channels}>
      <span>{kind === 'paid' ? 'paid for' : 'not paid for'}</span>
      <div>
        {[...of]
          .sort((a, b) => b.links - a.links)
          .map((c) => (
            <span key={c.channel} style={{ flexGrow: c.links }} title={`${c.channel}: ${num(c.links)}`}>
              {c.channel} <b>{num(c.links)}</b>
            </span>
          ))}
      </div>
    </div>
  );
}
