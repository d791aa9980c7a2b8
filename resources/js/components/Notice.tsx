import { Alert } from '@mantine/core';
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
    <Alert
      unstyled
      className={`${css.notice} ${calm ? css.calm : ''}`}
      classNames={{ message: css.said }}
      role={calm ? 'status' : 'alert'}
    >
      <span>{children}</span>
      {action}
    </Alert>
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
