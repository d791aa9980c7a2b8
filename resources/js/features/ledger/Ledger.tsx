import { SegmentedControl, Select, TextInput } from '@mantine/core';
import { useState } from 'react';
import { useAccounts } from '../../lib/useAccounts';
import { Entries } from './Entries';
import { Differences } from './Differences';
import css from './ledger.module.css';

const day = (back: number) => new Date(Date.now() - back * 86_400_000).toISOString().slice(0, 10);

/** Who wrote what, why and when; and what was live on one day and not on another. */
export function Ledger() {
  const [view, setView] = useState<'entries' | 'differences'>('entries');
  const [chosen, setChosen] = useState<string | null>(null);
  const [from, setFrom] = useState(day(7));
  const [to, setTo] = useState(day(-1));
  const accounts = useAccounts();
  const all = accounts.data?.items ?? [];
  const account = view === 'differences' ? (chosen ?? (all[0] ? String(all[0].id) : null)) : chosen;
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
        <TextInput
          size="xs"
          type="date"
          aria-label="from the day"
          value={from}
          onChange={(e) => setFrom(e.target.value)}
        />
        <span className="quiet">to</span>
        <TextInput size="xs" type="date" aria-label="to the day" value={to} onChange={(e) => setTo(e.target.value)} />
      </div>
      {from !== '' &&
        to !== '' &&
        (view === 'entries' ? (
          <Entries account={account} from={from} to={to} />
        ) : (
          account !== null && <Differences account={Number(account)} from={from} to={to} />
        ))}
    </div>
  );
}
