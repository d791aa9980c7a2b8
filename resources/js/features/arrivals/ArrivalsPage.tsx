import { Menu } from '@mantine/core';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { api, data, type Schema } from '../../api/client';
import { Empty, Notice } from '../../components/Notice';
import { Ribbon } from '../../components/Ribbon';
import { State } from '../../components/State';
import { useHere } from '../../lib/useClient';
import { clock } from '../../lib/moments';
import { num } from '../../lib/numbers';
import { converted } from './conversion';
import { ArriveWrong } from './ArriveWrong';
import { Way } from './Way';
import css from './arrivals.module.css';
import { keyOf } from '../../lib/queries';

type Arrival = Schema['Arrivals']['items'][number];
const MOST_SHOWN = 200;

interface Only {
  source: string;
  medium: string;
  campaign: string;
}

/** Arrivals as they come, and their sums. */
export default function ArrivalsPage() {
  const { client, to } = useHere();
  const navigate = useNavigate();
  const [only, setOnly] = useState<Only | null>(null);
  const [picked, setPicked] = useState<number | null>(null);
  const path = { client: client.id };
  const arrivals = useArrivals();
  const totals = useQuery({
    queryKey: keyOf('arrival-totals', client.id, arrivals.data?.items[0]?.id),
    queryFn: () => data(api.GET('/clients/{client}/arrivals/totals', { params: { path } })),
    placeholderData: (last) => last,
  });
  if (arrivals.error) return <Notice>{arrivals.error.message}</Notice>;
  if (!arrivals.data) return null;
  const { items, live, problem } = arrivals.data;
  const liveLink = live.length > 0 && (
    <Menu position="bottom-end">
      <Menu.Target>
        <button type="button" className={css.clear}>
          Open the live ads
        </button>
      </Menu.Target>
      <Menu.Dropdown>
        {live.map((l) => (
          <Menu.Item key={l.url} component="a" href={l.url} target="_blank" rel="noreferrer">
            {l.title}
          </Menu.Item>
        ))}
      </Menu.Dropdown>
    </Menu>
  );
  if (items.length === 0) {
    return (
      <Empty title={live.length > 0 ? 'No click has arrived yet' : 'No arrivals are read yet'} action={liveLink}>
        {problem ??
          (live.length > 0
            ? 'Click a live ad: its arrival shows here within seconds, ' +
              'with what it carried and the ad that it came from.'
            : `${client.name} has no site yet whose pages report what arrives. ` +
              'An owner adds one under “People and client”.')}
      </Empty>
    );
  }
  const shown = items.filter((a) => !only || sameAs(a, only));
  const one = items.find((a) => a.id === picked) ?? shown[0];
  const onKeyDown = (event: React.KeyboardEvent<HTMLTableRowElement>, at: Arrival) => {
    if (event.target !== event.currentTarget) return; // a link in it has its own keys
    const i = shown.indexOf(at);
    const place = { ArrowDown: i + 1, ArrowUp: i - 1, Home: 0, End: shown.length - 1 }[event.key];
    if (event.key === 'Enter' && at.ad) void navigate(to(`trace/${at.ad.id}`));
    const next = place === undefined ? undefined : shown[place];
    if (!next) return;
    event.preventDefault();
    setPicked(next.id);
    event.currentTarget.parentElement?.querySelector<HTMLElement>(`[data-arrival="${next.id}"]`)?.focus();
  };
  return (
    <div className={css.page}>
      <section className={css.live} aria-labelledby="live">
        <div className={css.head}>
          <h2 id="live">As they arrive</h2>
          <i className={problem ? css.off : css.pulse} aria-hidden />
          <span className="quiet">{problem ? '' : 'live'}</span>
          <span style={{ flex: 1 }} />
          {only && (
            <button type="button" className={css.clear} onClick={() => setOnly(null)}>
              show all
            </button>
          )}
          <ArriveWrong />
          {liveLink}
        </div>
        {problem && <Notice>{problem}</Notice>}
        <div className={css.scroll}>
          <table className={css.table} role="grid" aria-label="arrivals, newest first">
            <thead>
              <tr>
                {['at', 'ad', 'channel', 'source', 'medium', 'campaign', 'term', 'click ID'].map((h) => (
                  <th key={h} scope="col">
                    {h}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {shown.map((a) => (
                <tr
                  key={a.id}
                  className={`${css.new} ${a.id === one?.id ? css.on : ''}`}
                  onClick={() => setPicked(a.id)}
                  onKeyDown={(event) => onKeyDown(event, a)}
                  tabIndex={a.id === one?.id ? 0 : -1}
                  aria-selected={a.id === one?.id}
                  data-arrival={a.id}
                >
                  <td className="num">{clock(a.at)}</td>
                  <td>
                    {a.conversion ? (
                      <b className={css.sold}>{converted(a.conversion)}</b>
                    ) : a.ad ? (
                      <Link to={to(`trace/${a.ad.id}`)}>{a.ad.name}</Link>
                    ) : (
                      <span className="quiet">no ad found</span>
                    )}
                  </td>
                  <td>{a.conversion ? '' : a.channel}</td>
                  {[a.source, a.medium, a.campaign, a.term, a.clickId].map((v, i) => (
                    <td key={i} className="mono" title={v}>
                      {v === '' ? <span className="quiet">–</span> : v}
                    </td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
        </div>
        {one && <Taken arrival={one} />}
      </section>
      <section className={css.totals} aria-labelledby="sums">
        <h2 id="sums">Last 30 days</h2>
        <table className={css.table}>
          <thead>
            <tr>
              <th scope="col">source / medium / campaign</th>
              <th scope="col" className="num">
                arrivals
              </th>
            </tr>
          </thead>
          <tbody>
            {totals.data?.items.map((t) => (
              <tr
                key={`${t.source} ${t.medium} ${t.campaign}`}
                className={only && sameAs(t, only) ? css.on : ''}
                onClick={() => setOnly(t)}
              >
                <td className="mono">
                  <button
                    type="button"
                    className={css.sum}
                    aria-pressed={only !== null && sameAs(t, only)}
                    onClick={() => setOnly(t)}
                  >
                    {t.source || '–'} / {t.medium || '–'}
                    <span>{t.campaign || '–'}</span>
                  </button>
                </td>
                <td className="num">
                  {num(t.arrivals)}
                  <div
                    className={css.share}
                    style={{ width: `${(100 * t.arrivals) / Math.max(...totals.data.items.map((x) => x.arrivals))}%` }}
                  />
                  {t.matched < t.arrivals && (t.source !== '' || t.medium !== '') && (
                    <span className="quiet">{num(t.arrivals - t.matched)} without an ad</span>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </section>
    </div>
  );
}

const sameAs = (a: Only, b: Only) => a.source === b.source && a.medium === b.medium && a.campaign === b.campaign;

/** The newest arrivals, and every second those that have come since. */
function useArrivals() {
  const { client } = useHere();
  const queries = useQueryClient();
  const queryKey = keyOf('arrivals', client.id);
  return useQuery({
    queryKey,
    queryFn: async () => {
      const known = queries.getQueryData<Schema['Arrivals']>(queryKey)?.items ?? [];
      const after = known[0] === undefined ? undefined : String(known[0].id);
      const fresh = await data(
        api.GET('/clients/{client}/arrivals', { params: { path: { client: client.id }, query: { after } } }),
      );
      return { ...fresh, items: [...fresh.items, ...known].slice(0, MOST_SHOWN) };
    },
    refetchInterval: 1000,
  });
}

/** One arrival in full: its URL, and the ad it came from. */
function Taken({ arrival }: { arrival: Arrival }) {
  return (
    <div className={css.taken} aria-label="the arrival in full">
      <div>
        {arrival.ad ? (
          <>
            {arrival.ad.state && <State state={arrival.ad.state} />} <b>{arrival.ad.name}</b>{' '}
            <span className="quiet">
              {arrival.ad.externalId}, found by {arrival.matchedBy === 'click-id' ? 'the click ID' : 'the parameters'}
            </span>
          </>
        ) : (
          <span>Neither its click ID nor its parameters name an ad that is imported.</span>
        )}
      </div>
      <Ribbon segments={arrival.ribbon} label="URL as it arrived" />
      {arrival.isFollowed && <Way arrival={arrival.id} />}
    </div>
  );
}
