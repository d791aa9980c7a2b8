import type { ReactNode } from 'react';
import css from './you.module.css';

/** One thing that somebody else would have to get through. */
export function Layer({
  name,
  holds,
  says,
  action,
  children,
}: {
  name: string;
  holds: boolean;
  says: ReactNode;
  action?: ReactNode;
  children?: ReactNode;
}) {
  return (
    <section className={css.layer} data-holds={holds} aria-label={name}>
      <div className={css.band} aria-hidden />
      <div className={css.body}>
        <div className={css.head}>
          <h2>{name}</h2>
          <span className="quiet">{says}</span>
          <span style={{ flex: 1 }} />
          {action}
        </div>
        {children}
      </div>
    </section>
  );
}
