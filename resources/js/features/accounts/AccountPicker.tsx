import { Menu, UnstyledButton } from '@mantine/core';
import { useMemo } from 'react';
import { useNavigate } from 'react-router';
import type { Schema } from '../../api/client';
import { StateBar } from '../../components/State';
import { useHere } from '../../lib/useClient';
import { useKeys } from '../../lib/useKeys';
import css from './accounts.module.css';
import { num } from '../../lib/numbers';

type Account = Schema['Account'];

/** Which account: all of them with how far each keeps the plan. */
export function AccountPicker({ accounts, account }: { accounts: readonly Account[]; account: Account }) {
  const { to } = useHere();
  const navigate = useNavigate();
  const at = accounts.indexOf(account);
  useKeys(
    useMemo(() => {
      const go = (by: number) => {
        const next = accounts[(at + by + accounts.length) % accounts.length];
        if (next) void navigate(to(`accounts/${next.id}`));
      };
      return { '[': () => go(-1), ']': () => go(1) };
    }, [accounts, at, navigate, to]),
  );
  return (
    <Menu position="bottom-start" width={430}>
      <Menu.Target>
        <UnstyledButton className={css.picker} aria-label="account">
          <b>{account.name}</b> <span className="quiet">{account.platform}</span> <span aria-hidden>▾</span>
        </UnstyledButton>
      </Menu.Target>
      <Menu.Dropdown>
        {accounts.map((a) => (
          <Menu.Item
            key={a.id}
            onClick={() => void navigate(to(`accounts/${a.id}`))}
            aria-current={a === account || undefined}
          >
            <span className={css.option}>
              <span>
                {a === account ? <b>{a.name}</b> : a.name} <span className="quiet">{a.platform}</span>
              </span>
              <StateBar {...a} />
              <span className="num">{num(a.ads)}</span>
            </span>
          </Menu.Item>
        ))}
      </Menu.Dropdown>
    </Menu>
  );
}
