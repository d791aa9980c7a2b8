import type { Schema } from '../../api/client';
import { typesAt, type Document } from './document';
import css from './platforms.module.css';

type Kind = Schema['DialectSlot']['kind'];

export const KINDS: { kind: Kind; name: string; says: string }[] = [
  { kind: 'template', name: 'template', says: 'the whole click URL' },
  { kind: 'suffix', name: 'suffix', says: 'query text behind the landing URL' },
  { kind: 'landing', name: 'landing URL', says: 'the page itself' },
];

/**
 * The levels as strata, the slots as shafts through them: solid where a slot counts, hatched where only some campaign
 * types read it.
 */
export function Levels({ document }: { document: Document }) {
  const slots = KINDS.flatMap((k) => {
    const slot = document.slots.find((s) => s.kind === k.kind);
    return slot ? [{ ...k, slot }] : [];
  });
  const custom = document.customParameters;
  return (
    <div
      className={css.levels}
      style={{ gridTemplateColumns: `130px repeat(${slots.length + (custom ? 1 : 0)}, minmax(0, 1fr))` }}
      role="table"
      aria-label="levels and slots"
    >
      <div role="row" className={css.contents}>
        <span role="columnheader" className={css.corner}>
          level
        </span>
        {slots.map((s) => (
          <span key={s.kind} role="columnheader" className={css.shaftHead}>
            <b>{s.name}</b>
            <span className="quiet">
              {s.slot.inherit === 'gather'
                ? 'all levels gathered'
                : s.slot.levels.length > 1
                  ? 'the narrowest wins'
                  : s.says}
              {s.slot.maxLength ? `, up to ${s.slot.maxLength}` : ''}
            </span>
          </span>
        ))}
        {custom && (
          <span role="columnheader" className={css.shaftHead}>
            <b>
              {document.syntax?.open}
              {custom.prefix}name{document.syntax?.close}
            </b>
            <span className="quiet">custom, up to {custom.max} each</span>
          </span>
        )}
      </div>
      {document.levels.map((level) => (
        <div role="row" key={level.id} className={css.contents}>
          <span role="rowheader" className={css.levelName}>
            <b>{level.label}</b>
            {level.label.toLowerCase() !== level.role && <span className="quiet">{level.role}</span>}
          </span>
          {slots.map((s) => {
            const reads = typesAt(document, s.slot, level.id);
            return (
              <span key={s.kind} role="cell" className={`${css.shaft} ${shaft(reads)}`}>
                {reads === 'all'
                  ? s.slot.tokens === false || document.syntax === null
                    ? 'plain text'
                    : 'text and tokens'
                  : reads === 'none'
                    ? ''
                    : reads.length === 0
                      ? 'read by none'
                      : `${reads.join(', ')} only`}
              </span>
            );
          })}
          {custom && (
            <span role="cell" className={`${css.shaft} ${custom.levels.includes(level.id) ? css.counts : css.closed}`}>
              {custom.levels.includes(level.id) ? 'may be set' : ''}
            </span>
          )}
        </div>
      ))}
    </div>
  );
}

/** How a shaft is drawn where these campaign types read the slot. */
function shaft(reads: ReturnType<typeof typesAt>): string | undefined {
  if (reads === 'all') return css.counts;
  return reads === 'none' || reads.length === 0 ? css.closed : css.some;
}
