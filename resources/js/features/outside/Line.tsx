import { Link } from 'react-router';
import { Difference } from '../../components/Difference';
import { Place } from '../../components/Place';
import { moment } from '../../lib/moments';
import { useHere } from '../../lib/useClient';
import type { OutsideChange } from './useOutside';
import { effect, happened } from './words';
import css from './outside.module.css';

interface Props {
  change: OutsideChange;
  chosen: boolean;
  onChoose?: () => void;
  /** asks whether it is a new agreement */
  onAgree?: () => void;
}

/** One thing that changed: what it does to the proof, where, and what was there before. */
export function Line({ change: o, chosen, onChoose, onAgree }: Props) {
  const { to } = useHere();
  const words = happened(o);
  return (
    <li className={`${css.line} ${chosen ? css.chosen : ''}`} data-effect={kind(o)}>
      <span>
        {onChoose && (
          <input
            type="checkbox"
            checked={chosen}
            onChange={onChoose}
            aria-label={`${o.element}: ${words ?? o.kind}, ${effect(o)}`}
          />
        )}
      </span>
      <span className={css.effect}>{effect(o)}</span>
      <span className={css.where}>
        <Link to={to(`accounts/${o.account}?at=${o.node}`)}>{o.element}</Link>
        <span className="quiet">
          {o.level} · {moment(o.foundAt)}
        </span>
      </span>
      <span>{words === null && <Place kind={o.kind} name={o.custom} />}</span>
      <span className={words === null ? 'mono' : ''}>
        {words ?? <Difference before={o.before} after={o.after} />}
        {o.state !== 'open' && <Decided change={o} />}
        {onAgree && o.state === 'open' && o.breaks > 0 && o.canPutBack && o.kind !== 'setting' && (
          <button type="button" className={css.agree} onClick={onAgree}>
            or is this what was agreed?
          </button>
        )}
      </span>
    </li>
  );
}

function Decided({ change: o }: { change: OutsideChange }) {
  const { to } = useHere();
  return (
    <span className={css.decided}>
      {o.state === 'undone' && 'undone outside, too'}
      {o.state === 'accepted' && `accepted by ${o.by ?? 'somebody'}`}
      {o.state === 'returned' && (
        <>
          put back by {o.by ?? 'somebody'}: <Link to={to(`changes/${o.change}`)}>the change</Link>
        </>
      )}
      {o.decidedAt && `, ${moment(o.decidedAt)}`}
    </span>
  );
}

function kind(o: OutsideChange): string {
  if (!o.judged) return 'open';
  if (o.breaks > 0) return 'breaks';
  return o.mends > 0 ? 'mends' : 'none';
}
