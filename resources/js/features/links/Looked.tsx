import type { Schema } from '../../api/client';
import { Ribbon } from '../../components/Ribbon';
import { many } from '../../lib/numbers';
import { cellOf, EACH, heading, type Row } from './bench';
import css from './links.module.css';

type Look = Schema['LinkLook'];

interface Props {
  row: Row;
  looks: readonly Look[];
  onMend: (column: string, text: string) => void;
  onPick: (link: number) => void;
}

/** So many links of a row are shown whole; of the others only what is wrong. */
const SHOWN = 3;

/** What a row makes: links as ribbons, the channel that each is counted in, what is wrong, and what mends it. */
export function Looked({ row, looks, onMend, onPick }: Props) {
  const rest = looks.slice(SHOWN);
  const wrong = rest.filter((look) => !look.allowed).length;
  return (
    <div className={css.looked} role="row">
      <div role="gridcell">
        {looks.slice(0, SHOWN).map((look, i) => (
          <div key={i} className={css.look}>
            <Ribbon segments={look.segments} compact />
            <span className={css.channel}>{look.channel}</span>
          </div>
        ))}
        {rest.length > 0 && (
          <p className="quiet">
            and {many(rest.length, 'more link', 'more links')}
            {wrong > 0 && <b className={css.bad}>, {wrong} of which can’t be made</b>}
          </p>
        )}
        <Said row={row} looks={looks} onMend={onMend} onPick={onPick} />
      </div>
    </div>
  );
}

function Said({ row, looks, onMend, onPick }: Props) {
  const findings = new Map(looks.flatMap((look) => look.findings).map((f) => [`${f.code} ${f.key} ${f.reason}`, f]));
  const double = looks.find((look) => look.double)?.double;
  const isTwice = looks.some((look) => look.sameAs !== null);
  if (findings.size === 0 && !double && !isTwice) return null;
  return (
    <ul className={css.said}>
      {[...findings].map(([id, f]) => (
        <li key={id} data-severity={f.severity}>
          {f.reason}{' '}
          {f.fix?.text != null && f.key !== null && !cellOf(row, f.key).includes(EACH) && (
            <button type="button" className={css.link} onClick={() => onMend(f.key!, f.fix!.text!)}>
              {heading(f.key)}: {f.fix.says}
            </button>
          )}
        </li>
      ))}
      {double && (
        <li data-severity="warning">
          That link is there already{double.title && `, for ${double.title}`}
          {double.short && <span className="mono">, {double.short.replace(/^https?:\/\//, '')}</span>}.{' '}
          <button type="button" className={css.link} onClick={() => onPick(double.id)}>
            look at it
          </button>
        </li>
      )}
      {isTwice && <li data-severity="note">An earlier row makes the same link.</li>}
    </ul>
  );
}
