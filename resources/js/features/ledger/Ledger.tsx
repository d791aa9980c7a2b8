import { SegmentedControl, Select, TextInput } from '@mantine/core';
import { useMemo, useState } from 'react';
import { useAccounts } from '../../lib/useAccounts';
import { Entries } from './Entries';
import { useKeys } from '../../lib/useKeys';
import { beside } from './days';
import { Differences } from './Differences';
import { OneDay } from './OneDay';
import css from './ledger.module.css';

const day = (back: number) => new Date(Date.now() - back * 86_400_000).toISOString().slice(0, 10);

type View = 'entries' | 'differences' | 'day';

/** Who wrote what, why and when; what was live on one day and not on another; and one day, whole. */
export function Ledger() {
  const [view, setView] = useState<View>('entries');
  const [chosen, setChosen] = useState<string | null>(null);
  const [from, setFrom] = useState(day(7));
  const [to, setTo] = useState(day(-1));
  const accounts = useAccounts();
  const all = accounts.data?.items ?? [];
  const [one, setOne] = useState(day(1));
  const account = view !== 'entries' ? (chosen ?? (all[0] ? String(all[0].id) : null)) : chosen;
  useKeys(useMemo(() => ({ '[': () => setOne((d) => beside(d, -1)), ']': () => setOne((d) => beside(d, 1)) }), []));
  return (
    <div className={css.page}>
      <div className={css.bar}>
        <SegmentedControl
          size="xs"
          aria-label="what of the ledger"
          value={view}
          onChange={(v) => setView(v as typeof view)}
          data={[
            { value: 'entries', label: 'every write' },
            { value: 'differences', label: 'one day against another' },
            { value: 'day', label: 'one day' },
          ]}
        />
        <Select
          size="xs"
          w={260}
          aria-label="account"
          placeholder="all accounts"
          clearable={view === 'entries'}
          value={account}
          onChange={setChosen}
          data={all.map((a) => ({ value: String(a.id), label: `${a.name} · ${a.platform}` }))}
        />
        {view === 'day' ? (
          <>
            <button type="button" className={css.link} onClick={() => setOne(beside(one, -1))}>
              before <kbd>[</kbd>
            </button>
            <TextInput
              size="xs"
              type="date"
              aria-label="the day"
              value={one}
              onChange={(e) => e.target.value !== '' && setOne(e.target.value)}
            />
            <button type="button" className={css.link} onClick={() => setOne(beside(one, 1))}>
              after <kbd>]</kbd>
            </button>
          </>
        ) : (
          <>
            <TextInput
              size="xs"
              type="date"
              aria-label="from the day"
              value={from}
              onChange={(e) => setFrom(e.target.value)}
            />
            <span className="quiet">to</span>
            <TextInput
              size="xs"
              type="date"
              aria-label="to the day"
              value={to}
              onChange={(e) => setTo(e.target.value)}
            />
          </>
        )}
      </div>
      {from !== '' &&
        to !== '' &&
        (view === 'entries' ? (
          <Entries account={account} from={from} to={to} />
        ) : account === null ? null : view === 'day' ? (
          <OneDay key={`${account} ${one}`} account={Number(account)} day={one} />
        ) : (
          <Differences account={Number(account)} from={from} to={to} />
        ))}
    </div>
  );
}
