import { Menu } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { api, data, type Schema } from '../../api/client';
import { Empty, Notice } from '../../components/Notice';
import { Ribbon } from '../../components/Ribbon';
import { State } from '../../components/State';
import { useHere } from '../../lib/useClient';
import css from './arrivals.module.css';

type Arrival = Schema['Arrivals']['items'][number];
interface Only {
  source: string;
  medium: string;
  campaign: string;
}

/** Arrivals as they come, and their sums. */
export default function ArrivalsPage() {
  const { client, to } = useHere();
  const [only, setOnly] = useState<Only | null>(null);
  const [picked, setPicked] = useState<number | null>(null);
  const path = { client: client.id };
  const arrivals = useQuery({
    queryKey: ['arrivals', client.id],
    queryFn: () => data(api.GET('/clients/{client}/arrivals', { params: { path } })),
    refetchInterval: 1000,
  });
  const totals = useQuery({
    queryKey: ['arrival-totals', client.id, arrivals.data?.items[0]?.id],
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
            : `${client.name} has no analytics connected whose arrivals could be read.`)}
      </Empty>
    );
  }
  const shown = items.filter(
    (a) => !only || (a.source === only.source && a.medium === only.medium && a.campaign === only.campaign),
  );
  const one = items.find((a) => a.id === picked) ?? shown[0];
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
          {liveLink}
        </div>
        {problem && <Notice>{problem}</Notice>}
        <div className={css.scroll}>
          <table className={css.table} aria-label="arrivals, newest first">
            <thead>
              <tr>
                {['at', 'ad', 'source', 'medium', 'campaign', 'term', 'click ID'].map((h) => (
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
                  data-arrival={a.id}
                >
                  <td className="num">{new Date(a.at).toLocaleTimeString()}</td>
                  <td>
                    {a.ad ? (
                      <Link to={to(`trace/${a.ad.id}`)}>{a.ad.name}</Link>
                    ) : (
                      <span className="quiet">no ad found</span>
                    )}
                  </td>
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
                className={
                  only && only.source === t.source && only.medium === t.medium && only.campaign === t.campaign
                    ? css.on
                    : ''
                }
                onClick={() => setOnly({ source: t.source, medium: t.medium, campaign: t.campaign })}
              >
                <td className="mono">
                  {t.source || '–'} / {t.medium || '–'}
                  <div>{t.campaign || '–'}</div>
                </td>
                <td className="num">
                  {t.arrivals}
                  <div
                    className={css.share}
                    style={{ width: `${(100 * t.arrivals) / Math.max(...totals.data.items.map((x) => x.arrivals))}%` }}
                  />
                  {t.matched < t.arrivals && <span className="quiet">{t.arrivals - t.matched} without an ad</span>}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </section>
    </div>
  );
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
    </div>
  );
}
