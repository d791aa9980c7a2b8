import { Button, Select, SegmentedControl } from '@mantine/core';
import { Link } from 'react-router';
import type { Schema } from '../../api/client';
import { useHere } from '../../lib/useClient';
import { moment } from '../../lib/moments';
import { many, num } from '../../lib/numbers';
import { STATUS } from './status';
import type { ChangeFilter, useChanges } from './useChanges';
import css from './changes.module.css';

type Entry = Schema['Changes']['items'][number];

interface Props {
  changes: ReturnType<typeof useChanges>;
  filter: ChangeFilter;
  onFilter: (filter: ChangeFilter) => void;
  /** the change that is open; null: the ledger is */
  at: number | null;
}

/** The changes, newest first, with what chooses among them; those that were dropped are folded. */
export function ChangeList({ changes, filter, onFilter, at }: Props) {
  const { to } = useHere();
  const { items, dropped, people } = changes;
  return (
    <nav className={css.list} aria-label="changes, newest first">
      <Link
        to={to('changes/ledger')}
        className={`${css.item} ${at === null ? css.on : ''}`}
        aria-current={at === null ? 'page' : undefined}
      >
        <b>The ledger</b>
        <span className="quiet">
          every text that was written, and what was live on any day <kbd>l</kbd>
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
