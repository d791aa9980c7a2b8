import { useRunning } from '../../lib/useRunning';
import css from './outside.module.css';

/** How many changes from outside break a proof and wait for a decision: none, nothing is shown. */
export function OutsideMark() {
  const breaking = useRunning().data?.outside.breaking ?? 0;
  if (breaking === 0) return null;
  const words = `${breaking} changed outside ${breaking === 1 ? 'breaks' : 'break'} a proof`;
  return (
    <span className={css.mark} role="status" title={words}>
      <span aria-hidden>{breaking}</span>
      <span className="visually-hidden">{words}</span>
    </span>
  );
}
