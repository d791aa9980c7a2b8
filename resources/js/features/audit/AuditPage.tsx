import { useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { api, data } from '../../api/client';
import { Empty, Notice } from '../../components/Notice';
import { many, money } from '../../lib/numbers';
import { keyOf } from '../../lib/queries';
import { useAccounts } from '../../lib/useAccounts';
import { useHere } from '../../lib/useClient';
import { useKeys } from '../../lib/useKeys';
import { today } from '../results/question';
import { Accept } from './Accept';
import { List } from './List';
import { Proof } from './Proof';
import { Sight } from './Sight';
import { costOf, isNew, pageOf, sorted, type Trouble } from './words';
import css from './audit.module.css';

/** Where the day begins: what is wrong over all accounts, lists and links, by cause, the dearest first. */
export default function AuditPage() {
  const { client, mayEdit, to } = useHere();
  const navigate = useNavigate();
  const [picked, setPicked] = useState<number | null>(null);
  const [only, setOnly] = useState<'new' | null>(null);
  const [accepting, setAccepting] = useState<Trouble | null>(null);
  const audit = useQuery({
    queryKey: keyOf('troubles', client.id),
    queryFn: () => data(api.GET('/clients/{client}/troubles', { params: { path: { client: client.id } } })),
    refetchInterval: ({ state }) => (state.data?.looking ? 2000 : 60_000),
  });
  const day = today(client.timeZone);
  const { open, accepted, mended } = sorted(audit.data?.items ?? [], day);
  const fresh = open.filter((t) => isNew(t, audit.data?.beganAt ?? null));
  const shown = only === 'new' ? fresh : open;
  const all = [...shown, ...(only ? [] : [...accepted, ...mended])];
  const one = all.find((t) => t.id === picked) ?? all[0];
  useKeys(
    useMemo(
      () => ({
        n: () => setOnly((o) => (o ? null : 'new')),
        a: () => mayEdit && one && one.mendedAt === null && setAccepting(one),
        Enter: () => one && void navigate(to(one.node && one.kind !== 'names' ? `trace/${one.node}` : pageOf(one))),
      }),
      [mayEdit, navigate, one, to],
    ),
  );
  if (audit.error) return <Notice>{audit.error.message}</Notice>;
  if (!audit.data) return null;
  const { cost, days, hasPlan, looking } = audit.data;
  const touched = costOf(open);
  if (all.length === 0 && only === null && looking) {
    return <Empty title="Looking for what is wrong …">What is found stands here in a moment.</Empty>;
  }
  if (all.length === 0 && only === null) {
    return (
      <Empty
        title={hasPlan ? 'Nothing is wrong' : 'There is no agreement yet'}
        action={<FirstSteps hasPlan={hasPlan} />}
      >
        {hasPlan
          ? 'Every ad keeps the plan, and what arrives is counted where it should be.'
          : 'What is wrong is told once a plan says what must arrive.'}
      </Empty>
    );
  }
  return (
    <div className={css.page}>
      <section className={css.main} aria-labelledby="wrong">
        <header>
          <h1 id="wrong">
            {many(open.length, 'cause')} {open.length === 1 ? 'touches' : 'touch'}{' '}
            <b>{money(touched, client.currency)}</b>{' '}
            <span className="quiet">of {money(cost, client.currency)} that clicks have cost in 30 days</span>
          </h1>
          <span style={{ flex: 1 }} />
          <span className={`quiet ${css.handOn}`}>
            to hand on:{' '}
            {['html', 'xlsx'].map((kind) => (
              <a
                key={kind}
                className={css.link}
                href={`/api/v1/clients/${client.id}/troubles/report?kind=${kind}`}
                download
              >
                {kind.toUpperCase()}
              </a>
            ))}
          </span>
          {!hasPlan && <Link to={to('plan')}>there is no plan yet: agree on one</Link>}
          {(fresh.length > 0 || only) && (
            <button
              type="button"
              className={css.link}
              aria-pressed={only === 'new'}
              onClick={() => setOnly(only ? null : 'new')}
            >
              {only ? 'all again' : `only the ${many(fresh.length, 'new one')}`} <kbd>n</kbd>
            </button>
          )}
        </header>
        <Proof days={days} />
        <List
          groups={[
            { title: '', items: shown },
            ...(only
              ? []
              : [
                  { title: 'accepted as they are', items: accepted },
                  { title: 'mended in the last two weeks', items: mended },
                ]),
          ]}
          one={one?.id ?? null}
          currency={client.currency}
          beganAt={audit.data.beganAt}
          onPick={setPicked}
        />
      </section>
      {one && <Sight key={one.id} trouble={one} hasPlan={hasPlan} onAccept={() => setAccepting(one)} />}
      {accepting && <Accept trouble={accepting} onClose={() => setAccepting(null)} />}
    </div>
  );
}

function FirstSteps({ hasPlan }: { hasPlan: boolean }) {
  const { to } = useHere();
  const accounts = useAccounts();
  if (accounts.data?.items.length === 0) return <Link to={to('accounts')}>Bring in an account</Link>;
  return hasPlan ? (
    <Link to={to('results')}>See what clicks brought</Link>
  ) : (
    <Link to={to('plan')}>Agree on a plan</Link>
  );
}
