import { Fragment } from 'react';
import { moment } from '../../lib/moments';
import { money, num } from '../../lib/numbers';
import { countsSessions, isNew, MARKS, type Trouble } from './words';
import css from './audit.module.css';

interface Group {
  title: string;
  items: readonly Trouble[];
}

/** Troubles in their groups, for the keyboard. */
export function List({
  groups,
  one,
  currency,
  beganAt,
  onPick,
}: {
  groups: readonly Group[];
  one: number | null;
  currency: string;
  beganAt: string | null;
  onPick: (id: number) => void;
}) {
  const all = groups.flatMap((g) => g.items);
  const most = Math.max(1, ...all.map((t) => t.cost));
  const onKeyDown = (event: React.KeyboardEvent<HTMLElement>) => {
    const at = all.findIndex((t) => t.id === one);
    const to = { ArrowDown: at + 1, ArrowUp: at - 1, Home: 0, End: all.length - 1 }[event.key];
    const next = to === undefined ? undefined : all[to];
    if (!next) return;
    event.preventDefault();
    onPick(next.id);
    event.currentTarget.querySelector<HTMLElement>(`[data-trouble="${next.id}"]`)?.focus();
  };
  return (
    <div className={css.list} role="grid" aria-label="what is wrong, the dearest first" onKeyDown={onKeyDown}>
      <div className={css.heads} role="row">
        {['what', 'where', 'ads', 'clicks', 'cost in 30 days', 'since'].map((h) => (
          <span key={h} role="columnheader">
            {h}
          </span>
        ))}
      </div>
      {groups.map((g) => (
        <Fragment key={g.title}>
          {g.title !== '' && g.items.length > 0 && (
            <div className={css.group} role="row">
              <span role="gridcell">{g.title}</span>
            </div>
          )}
          {g.items.map((t) => (
            <div
              key={t.id}
              role="row"
              className={css.line}
              data-trouble={t.id}
              data-kind={t.kind}
              data-quiet={g.title !== '' || undefined}
              aria-selected={t.id === one}
              tabIndex={t.id === one ? 0 : -1}
              onClick={() => onPick(t.id)}
            >
              <span role="gridcell" className={css.what} title={t.what}>
                <i aria-hidden>{MARKS[t.kind]}</i>
                {t.what}
                {isNew(t, beganAt) && <em>{t.returnedAt ? 'back again' : 'new'}</em>}
              </span>
              <span role="gridcell">{t.where}</span>
              <span role="gridcell" className="num">
                {t.ads > 0 ? num(t.ads) : ''}
                {t.ads > 0 && (t.kind === 'feed' || t.kind === 'link') && (
                  <small> {`${t.kind === 'feed' ? 'item' : 'link'}${t.ads === 1 ? '' : 's'}`}</small>
                )}
              </span>
              <span role="gridcell" className="num">
                {t.clicks > 0 ? num(t.clicks) : ''}
                {t.clicks > 0 && countsSessions(t) && <small> sessions</small>}
              </span>
              <span role="gridcell" className={`num ${css.cost}`}>
                {t.cost > 0 ? money(t.cost, currency) : ''}
                {t.cost > 0 && <i style={{ width: `${(100 * t.cost) / most}%` }} aria-hidden />}
              </span>
              <span role="gridcell" className="num">
                {moment(t.mendedAt ?? t.returnedAt ?? t.firstAt).split(',')[0]}
              </span>
            </div>
          ))}
        </Fragment>
      ))}
    </div>
  );
}
