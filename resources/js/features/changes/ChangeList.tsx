import { Button, Select, SegmentedControl } from '@mantine/core';
import { Link } from 'react-router';
import type { Schema } from '../../api/client';
import { useHere } from '../../lib/useClient';
import { moment } from '../../lib/moments';
import { many, num } from '../../lib/numbers';
import { useRunning } from '../../lib/useRunning';
import { STATUS } from './status';
import type { ChangeFilter, useChanges } from './useChanges';
import css from './changes.module.css';

/** What is shown beside the changes. */
export const BESIDE = ['ledger', 'outside'] as const;
export type Beside = (typeof BESIDE)[number];

type Entry = Schema['Changes']['items'][number];

interface Props {
  changes: ReturnType<typeof useChanges>;
  filter: ChangeFilter;
  onFilter: (filter: ChangeFilter) => void;
  /** the change that is open, or what stands beside the changes */
  at: number | Beside;
}

/** The changes, newest first, with what chooses among them; those that were dropped are folded. */
export function ChangeList({ changes, filter, onFilter, at }: Props) {
  const { to } = useHere();
  const { items, dropped, people } = changes;
  const outside = useRunning().data?.outside;
  return (
    <nav className={css.list} aria-label="changes, newest first">
      <Link
        to={to('changes/ledger')}
        className={`${css.item} ${at === 'ledger' ? css.on : ''}`}
        aria-current={at === 'ledger' ? 'page' : undefined}
      >
        <b>The ledger</b>
        <span className="quiet">
          every text that was written, and what was live on any day <kbd>l</kbd>
        </span>
      </Link>
      <Link
        to={to('changes/outside')}
        className={`${css.item} ${at === 'outside' ? css.on : ''}`}
        aria-current={at === 'outside' ? 'page' : undefined}
      >
        <b>Changed outside</b>
        <span className="quiet">
          {outside && outside.open > 0
            ? `${num(outside.open)} to decide${outside.breaking > 0 ? `, ${num(outside.breaking)} break a proof` : ''} `
            : 'what others wrote on the platforms '}
          <kbd>u</kbd>
        </span>
      </Link>
      <div className={css.choose}>
        <SegmentedControl
          size="xs"
          aria-label="only changes that are"
          value={filter.state ?? 'all'}
          onChange={(state) =>
            onFilter({ ...filter, state: state === 'all' ? null : (state as ChangeFilter['state']) })
          }
          data={[
            { value: 'all', label: 'all' },
            { value: 'open', label: 'open' },
            { value: 'over', label: 'over' },
          ]}
        />
        {people.length > 1 && (
          <Select
            size="xs"
            aria-label="only changes by"
            placeholder="by anybody"
            clearable
            comboboxProps={{ withinPortal: true }}
            value={filter.by}
            onChange={(by) => onFilter({ ...filter, by })}
            data={people.map((p) => ({ value: String(p.id), label: p.name }))}
          />
        )}
      </div>
      {items.length === 0 && <p className={`quiet ${css.item}`}>No change is like that.</p>}
      {items.map((c, i) => (
        <Item
          key={c.id}
          change={c}
          first={c.together === null || items[i - 1]?.together !== c.together}
          on={c.id === at}
        />
      ))}
      {changes.hasMore && (
        <Button size="xs" variant="subtle" loading={changes.loading} onClick={changes.more}>
          Older changes
        </Button>
      )}
      {dropped > 0 && (
        <Button
          size="xs"
          variant="subtle"
          color="gray"
          aria-expanded={filter.state === 'dropped'}
          onClick={() => onFilter({ ...filter, state: filter.state === 'dropped' ? null : 'dropped' })}
        >
          {filter.state === 'dropped' ? 'Back to those that were not dropped' : `${num(dropped)} dropped`}
        </Button>
      )}
    </nav>
  );
}

/** Of those drafted together the first says what, the others only where. */
function Item({ change: c, first, on }: { change: Entry; first: boolean; on: boolean }) {
  const { to } = useHere();
  return (
    <Link
      to={to(`changes/${c.id}`)}
      className={`${css.item} ${on ? css.on : ''}`}
      aria-current={on ? 'page' : undefined}
    >
      {first && (
        <>
          <b>{c.title}</b>
          <span className="quiet">
            {c.author}, {c.at && moment(c.at)}
          </span>
        </>
      )}
      {c.together !== null && <span>{c.account}</span>}
      <span>
        <em data-status={c.status}>{STATUS[c.status]}</em> · {many(c.writes, 'write')}
      </span>
    </Link>
  );
}
