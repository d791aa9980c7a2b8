import { Button } from '@mantine/core';
import { Link } from 'react-router';
import type { Schema } from '../../api/client';
import { Notice } from '../../components/Notice';
import { many, num } from '../../lib/numbers';
import { useHere } from '../../lib/useClient';
import css from './platforms.module.css';

interface Props {
  accounts: Schema['Consequences']['accounts'];
  busy: boolean;
  onKeep: () => void;
}

/** What keeping the platform so would do to the proofs of the accounts on it. */
export function Weighed({ accounts, busy, onKeep }: Props) {
  const { to } = useHere();
  return (
    <Notice
      action={
        <Button size="xs" color="red" loading={busy} onClick={onKeep}>
          Keep it all the same
        </Button>
      }
    >
      <b>Nothing is kept yet.</b> Proven now, and would be broken by it:
      <ul className={css.weighed}>
        {accounts
          .filter((a) => a.breaks > 0)
          .map((a) => (
            <li key={a.id}>
              <Link to={to(`accounts/${a.id}`)}>{a.name}</Link>: {many(a.breaks, 'ad')} of {num(a.ads)}
              {a.looked < a.ads && ` (of the first ${num(a.looked)})`}
              {a.mends > 0 && `; ${many(a.mends, 'ad')} would be mended`}
              <ul>
                {a.samples.slice(0, 2).map((s) => (
                  <li key={s.node}>
                    {s.name}: {s.reason}
                  </li>
                ))}
              </ul>
            </li>
          ))}
      </ul>
    </Notice>
  );
}
