import { Button, SegmentedControl } from '@mantine/core';
import { useMemo, useState } from 'react';
import { Notice } from '../../components/Notice';
import { many } from '../../lib/numbers';
import { useHere } from '../../lib/useClient';
import { useKeys } from '../../lib/useKeys';
import { Line } from './Line';
import { NewAgreement } from './NewAgreement';
import { useDecide, useOutside, type Decision, type OutsideAccount, type OutsideChange } from './useOutside';
import css from './outside.module.css';

/** What changed on the platforms without us, account by account, what breaks a proof first; accepted or put back. */
export function Outside() {
  const { mayEdit } = useHere();
  const [decided, setDecided] = useState(false);
  const { pages, items, accounts } = useOutside(decided);
  const [chosen, setChosen] = useState<ReadonlySet<number>>(new Set());
  const decide = useDecide();
  const [agreeing, setAgreeing] = useState<OutsideChange | null>(null);
  const groups = accounts
    .map((account) => ({ account, items: items.filter((o) => o.account === account.id) }))
    .filter((g) => g.items.length > 0);
  const run = (verb: Decision['verb'], { account, items: all }: Group) => {
    const some = all.filter((o) => chosen.has(o.id)).map((o) => o.id);
    setChosen(new Set());
    decide.mutate({ verb, account: account.id, items: some.length > 0 ? some : null });
  };
  // keys act on what is chosen: of the account of which something is
  const at = groups.find((g) => g.items.some((o) => chosen.has(o.id)));
  useKeys(
    useMemo(
      () => ({
        y: () => at && mayEdit && run(decided ? 'think again' : 'accept', at),
        b: () => at && mayEdit && !decided && run('put back', at),
        Escape: () => setChosen(new Set()),
      }),
      // eslint-disable-next-line react-hooks/exhaustive-deps
      [at, decided, mayEdit, chosen],
    ),
  );
  if (pages.error) return <Notice>{pages.error.message}</Notice>;
  return (
    <div className={css.page}>
      <div className={css.bar}>
        <h2>Changed outside</h2>
        <SegmentedControl
          size="xs"
          aria-label="what of it"
          value={decided ? 'decided' : 'open'}
          onChange={(v) => {
            setChosen(new Set());
            setDecided(v === 'decided');
          }}
          data={[
            { value: 'open', label: 'to decide' },
            { value: 'decided', label: 'decided' },
          ]}
        />
        <span className="quiet">
          What imports found on the platforms that nobody wrote from here.
          {mayEdit && !decided && items.length > 0 && (
            <>
              {' '}
              <kbd>Space</kbd> chooses, <kbd>y</kbd> accepts, <kbd>b</kbd> puts back.
            </>
          )}
        </span>
      </div>
      {decide.error && <Notice>{decide.error.message}</Notice>}
      {pages.isSuccess && groups.length === 0 && (
        <p className="quiet">
          {decided
            ? 'Nothing was decided yet.'
            : 'Nothing has changed outside since the last import. Let imports begin by themselves, in Accounts, to ' +
              'hear of it early.'}
        </p>
      )}
      <div className={css.groups} tabIndex={0} role="region" aria-label="changed outside, by account">
        {groups.map((g) => (
          <Account
            key={g.account.id}
            group={g}
            chosen={chosen}
            onChoose={(id) => setChosen(toggled(chosen, id))}
            decided={decided}
            busy={decide.isPending}
            onRun={mayEdit ? (verb) => run(verb, g) : undefined}
            onAgree={mayEdit ? setAgreeing : undefined}
          />
        ))}
        {pages.hasNextPage && (
          <Button
            size="xs"
            variant="subtle"
            loading={pages.isFetchingNextPage}
            onClick={() => void pages.fetchNextPage()}
          >
            More
          </Button>
        )}
      </div>
      {agreeing && (
        <NewAgreement
          change={agreeing}
          onClose={() => setAgreeing(null)}
          onTaken={() => {
            decide.mutate({ verb: 'accept', account: agreeing.account, items: [agreeing.id] });
            setAgreeing(null);
          }}
        />
      )}
    </div>
  );
}

interface Group {
  account: OutsideAccount;
  items: OutsideChange[];
}

interface AccountProps {
  group: Group;
  chosen: ReadonlySet<number>;
  onChoose: (id: number) => void;
  decided: boolean;
  busy: boolean;
  onRun?: (verb: Decision['verb']) => void;
  onAgree?: (change: OutsideChange) => void;
}

function Account({ group: { account, items }, chosen, onChoose, decided, busy, onRun, onAgree }: AccountProps) {
  const some = items.filter((o) => chosen.has(o.id)).length;
  const which = some > 0 ? `${some} chosen` : 'all';
  const back = items.some((o) => o.canPutBack && (some === 0 || chosen.has(o.id)));
  return (
    <section aria-label={account.name}>
      <header className={css.head}>
        <b>{account.name}</b>
        {!decided && (
          <span className={account.breaking > 0 ? css.bad : 'quiet'}>
            {many(account.open, 'change')}
            {account.breaking > 0 &&
              `, ${account.breaking} of them break${account.breaking === 1 ? 's' : ''} the proof`}
          </span>
        )}
        <span style={{ flex: 1 }} />
        {onRun && !decided && (
          <>
            <Button size="compact-xs" variant="default" loading={busy} onClick={() => onRun('accept')}>
              Accept {which}
            </Button>
            <Button size="compact-xs" disabled={!back} loading={busy} onClick={() => onRun('put back')}>
              Put {which} back
            </Button>
          </>
        )}
        {onRun && decided && some > 0 && (
          <Button size="compact-xs" variant="default" loading={busy} onClick={() => onRun('think again')}>
            Decide anew
          </Button>
        )}
      </header>
      <ul className={css.list} aria-label={`changed outside in ${account.name}`} onKeyDown={alongTheList}>
        {items.map((o) => (
          <Line
            key={o.id}
            change={o}
            chosen={chosen.has(o.id)}
            onAgree={onAgree && (() => onAgree(o))}
            onChoose={onRun && (!decided || o.state === 'accepted') ? () => onChoose(o.id) : undefined}
          />
        ))}
      </ul>
    </section>
  );
}

function toggled(chosen: ReadonlySet<number>, id: number): ReadonlySet<number> {
  const next = new Set(chosen);
  if (!next.delete(id)) next.add(id);
  return next;
}

/** Arrow keys go from line to line. */
function alongTheList(event: React.KeyboardEvent<HTMLElement>): void {
  const by = { ArrowDown: 1, ArrowUp: -1 }[event.key];
  if (by === undefined) return;
  const boxes = [...document.querySelectorAll<HTMLInputElement>(`.${css.groups} input[type=checkbox]`)];
  const next = boxes[boxes.indexOf(document.activeElement as HTMLInputElement) + by];
  if (!next) return;
  event.preventDefault();
  next.focus();
}
