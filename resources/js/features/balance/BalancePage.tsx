import { useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { Empty, Notice } from '../../components/Notice';
import { many, money, num } from '../../lib/numbers';
import { keyOf } from '../../lib/queries';
import { useHere } from '../../lib/useClient';
import { useKeys } from '../../lib/useKeys';
import { Meant } from '../results/Meant';
import { daysOf, readDays, today } from '../results/question';
import { useReading } from '../results/useReading';
import { Head, readMeant, readOf } from './Head';
import { Lines } from './Lines';
import { Mend } from './Mend';
import { Stairs } from './Stairs';
import { footOf, lostShare, sizeOf, stepsOf, WORDS, type By, type Down, type Of, type Step } from './steps';
import { claimsOf, clicksOf } from './told';
import css from './balance.module.css';

const BELOW: Record<By, By | null> = { platform: 'account', account: 'campaign', campaign: 'ad', ad: null };

/** Conversions come in millionths: they may be shared. */
const MILLION = 1_000_000;

/** Where the clicks have gone that were paid for: a stair down to those that arrived as agreed. */
export default function BalancePage() {
  const { client, to } = useHere();
  const [address, setAddress] = useSearchParams();
  const [down, setDown] = useState<readonly Down[]>([]);
  const [step, setStep] = useState<Step | null>(null);
  const [at, setAt] = useState(0);
  const last = Number(address.get('last')) || 28;
  const days = daysOf({ last }, today(client.timeZone));
  const here = down.at(-1);
  const by: By = here ? (BELOW[here.by] ?? 'ad') : 'platform';
  const of = readOf(address.get('of'));
  const meant = readMeant(address.get('meant'));
  const { reading, error: unread } = useReading(client.id, days, meant);
  const query = { ...days, by, ...(here ? { [here.by]: here.key } : {}), ...(meant ? { reading: reading?.id } : {}) };
  const params = { path: { client: client.id }, query };
  const balance = useQuery({
    queryKey: keyOf('balance', client.id, of, query),
    queryFn: () => (of === 'clicks' ? clicksOf(params) : claimsOf(of, params)),
    enabled: !meant || reading?.status === 'done',
    placeholderData: (before) => (before?.of === of ? before : undefined),
    refetchInterval: ({ state: { data } }) => (data?.left ? 1500 : data?.total ? 60_000 : 5000),
  });
  const text = (n: number) =>
    of === 'revenue' ? money(n, client.currency) : num(of === 'conversions' ? Math.round(n / MILLION) : n);
  const go = (to: Record<string, string>) =>
    setAddress(Object.fromEntries(Object.entries({ ...Object.fromEntries(address), ...to }).filter(([, v]) => v)));
  const up = () => {
    setDown(down.slice(0, -1));
    setAt(0);
  };
  useKeys(useMemo(() => ({ Backspace: () => setDown((d) => d.slice(0, -1)), Escape: () => setStep(null) }), []));
  const error = balance.error ?? unread;
  if (error) return <Notice>{error.message}</Notice>;
  if (!balance.data) return <Meant reading={reading} />;
  const { total, lines, more, provisional, said, left } = balance.data;
  const adding = left > 0 && (
    <span role="status">
      {many(left, 'day')} of it {left === 1 ? 'is' : 'are'} being added up; what is told grows.{' '}
    </span>
  );
  const head = {
    of,
    last,
    onOf: (to: Of) => {
      setStep(null);
      go({ of: to });
    },
    onLast: (days: string) => go({ last: days }),
    onUp: here ? up : null,
    meant,
    onMeant: (to: string) => go({ meant: to }),
  };
  if (!total || total.whole + footOf(of, total) === 0) {
    return (
      <div className={css.page}>
        <Head {...head}>
          <span className="quiet">
            {readDays(days)} {adding}
          </span>
        </Head>
        {meant && <Meant reading={reading} />}
        <Empty title={WORDS[of].none} action={<Link to={to('results')}>What arrived</Link>}>
          Platforms tell them by the hour, once an account has been brought in through a connection.
        </Empty>
      </div>
    );
  }
  const told = stepsOf(of, total).find((s) => s.step === step);
  return (
    <div className={css.page}>
      <Head {...head}>
        {total.whole === 0 ? (
          <>Platforms have told of no {WORDS[of].whole} yet; </>
        ) : (
          <>
            Of <b>{text(total.whole)}</b> {WORDS[of].whole}{' '}
          </>
        )}
        {down.length > 0 && (
          <>
            on{' '}
            {down.map((d, i) => (
              <button key={d.key} type="button" className={css.word} onClick={() => setDown(down.slice(0, i + 1))}>
                {d.name}
              </button>
            ))}{' '}
          </>
        )}
        <b>{text(footOf(of, total))}</b> {WORDS[of].foot}{' '}
        <span className="quiet">
          {total.whole > 0 && `${Math.round(100 * lostShare(of, total))} % ${WORDS[of].lost}; `}
          {readDays(days)}
        </span>
      </Head>
      {meant && <Meant reading={reading} />}
      <Stairs of={of} stair={total} text={text} at={step} onAt={setStep} />
      <p className={css.said}>
        {told ? (
          <>
            <b>
              {text(told.to - told.from)} {told.title}
            </b>
            : {told.means}.{' '}
            {told.step === 'elsewhere' &&
              Object.entries(total.elsewhere)
                .sort((a, b) => b[1] - a[1])
                .map(([channel, n]) => `${text(n)} as ${channel}`)
                .join(', ')}
            {of === 'clicks' && <Mend step={told.step} down={down} line={lines[at]} />}
          </>
        ) : (
          <span className="quiet">
            {adding}
            {total.surplus !== null && `${text(total.surplus)} more ${WORDS[of].surplus}. `}
            {said}
            {total.marked && 'More is missing without a cause than is usual (5 to 15 %). '}
            {days.to >= provisional && 'Of the last days platforms say more later. '}
            {of === 'clicks' &&
              sizeOf(total, 'withheld') === null &&
              down.length > 0 &&
              'Consent is counted for all together alone. '}
          </span>
        )}
      </p>
      <Lines
        of={of}
        text={text}
        lines={lines}
        by={by}
        at={at}
        step={step}
        onAt={setAt}
        onDown={(line) => {
          if (BELOW[by] === null) return;
          setDown([...down, { by, key: line.key, name: line.name || 'none' }]);
          setAt(0);
        }}
      />
      {more > 0 && <p className={css.said}>{num(more)} more with less</p>}
    </div>
  );
}
