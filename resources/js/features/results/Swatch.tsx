import { useId } from 'react';
import css from './results.module.css';

/** Each layer has its tone and its hatching: it is told apart without colour too. */
export function Patterns({ id }: { id: string }) {
  const marks = [
    null,
    'M0,8L8,0M-2,2L2,-2M6,10L10,6',
    'M0,4H8',
    'M2,2h1.6v1.6h-1.6zM6,6h1.6v1.6h-1.6z',
    'M4,0V8',
    'M0,0L8,8M-2,6L2,10M6,-2L10,2',
  ];
  return (
    <defs>
      {marks.map((mark, i) => (
        <pattern key={i} id={`${id}-${i}`} width="8" height="8" patternUnits="userSpaceOnUse">
          <rect width="8" height="8" className={css.ground} data-at={i} />
          {mark && <path d={mark} className={css.hatch} data-at={i} />}
        </pattern>
      ))}
    </defs>
  );
}

/** The mark of a line's layer. */
export function Swatch({ id, at }: { id?: string; at: number }) {
  const own = useId();
  return (
    <svg className={css.swatch} width="11" height="11" aria-hidden>
      {id === undefined && <Patterns id={own} />}
      <rect width="11" height="11" fill={`url(#${id ?? own}-${at})`} className={css.layer} />
    </svg>
  );
}
