import { Ribbon } from '../../components/Ribbon';
import { State } from '../../components/State';
import type { Row } from './useTree';
import css from './accounts.module.css';

/** The row under the cursor in full: what it sends, and why it is broken. */
export function RowInFull({ row }: { row: Row | null }) {
  if (!row) return <div className={css.why} />;
  return (
    <div className={css.why} aria-live="polite" aria-label="the row in full">
      <div className={css.whyHead}>
        {row.state && <State state={row.state} />}
        <b>{row.name || row.externalId}</b>
        <span className="quiet">
          {row.where || row.level} · {row.externalId}
          {row.type && ` · ${row.type}`}
        </span>
      </div>
      {row.fault && <div className={css.fault}>{row.fault}</div>}
      {row.isAd ? (
        <Ribbon segments={row.ribbon} bad={row.faultKeys} />
      ) : row.says.length > 0 ? (
        row.says.map((s) => (
          <div key={s.slot} className="mono">
            <span className="quiet">{s.slot}</span> {s.text}
          </div>
        ))
      ) : (
        <span className="quiet">It has no tracking text of its own; what stands above it counts.</span>
      )}
    </div>
  );
}
