import type { Schema } from '../../api/client';
import { Difference } from '../../components/Difference';
import { Place } from '../../components/Place';
import css from './edit.module.css';
import { num } from '../../lib/numbers';

/** What would change, text by text. */
export function Preview({ seen, pending }: { seen: Schema['EditPreview'] | undefined; pending: boolean }) {
  if (!seen)
    return (
      <p className={`quiet ${css.none}`}>{pending ? 'Looking …' : 'What would change is shown here as you type.'}</p>
    );
  return (
    <div className={css.preview} aria-busy={pending}>
      <p role="status">
        <b>{num(seen.total)}</b> of {num(seen.looked)} texts would change
        {seen.total > seen.items.length && `; the first ${seen.items.length}`}.
      </p>
      {seen.problems.length > 0 && (
        <ul className={css.problems}>
          {seen.problems.map((p) => (
            <li key={p}>{p}</li>
          ))}
        </ul>
      )}
      <div className={css.list} tabIndex={0} role="region" aria-label="texts that would change">
        {seen.items.map((i) => (
          <div key={`${i.node} ${i.kind} ${i.custom}`} className={css.item}>
            <span>
              {i.name} <span className="quiet">{i.where}</span>
            </span>
            <span>
              <Place kind={i.kind} name={i.custom} />
            </span>
            <span className="mono">
              <Difference before={i.before} after={i.after} />
            </span>
          </div>
        ))}
      </div>
    </div>
  );
}
