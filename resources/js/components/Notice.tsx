import type { ReactNode } from 'react';
import css from './small.module.css';

/** Something went wrong, or is worth knowing: what, and what to do. */
export function Notice({
  children,
  action,
  calm = false,
}: {
  children: ReactNode;
  action?: ReactNode;
  calm?: boolean;
}) {
  return (
    <div className={`${css.notice} ${calm ? css.calm : ''}`} role={calm ? 'status' : 'alert'}>
      <span style={{ flex: 1 }}>{children}</span>
      {action}
    </div>
  );
}

/** An empty screen says what to do first. */
export function Empty({ title, children, action }: { title: string; children: ReactNode; action?: ReactNode }) {
  return (
    <div className={css.empty}>
      <h1>{title}</h1>
      <p>{children}</p>
      {action}
    </div>
  );
}
