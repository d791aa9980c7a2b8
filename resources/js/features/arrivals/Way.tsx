import { useQuery } from '@tanstack/react-query';
import { api, data } from '../../api/client';
import { Notice } from '../../components/Notice';
import { clock, moment } from '../../lib/moments';
import { many } from '../../lib/numbers';
import { converted } from './conversion';
import { Kept } from './Kept';
import { keyOf } from '../../lib/queries';
import { useHere } from '../../lib/useClient';
import css from './arrivals.module.css';

/** What else the same visitor has seen: a band a session, with where it came from and its pages along it. */
export function Way({ arrival }: { arrival: number }) {
  const { client } = useHere();
  const way = useQuery({
    queryKey: keyOf('way', client.id, arrival),
    queryFn: () =>
      data(api.GET('/clients/{client}/arrivals/{arrival}/way', { params: { path: { client: client.id, arrival } } })),
  });
  if (way.error) return <Notice>{way.error.message}</Notice>;
  if (!way.data) return null;
  const { views, more, sessions } = way.data;
  return (
    <section className={css.way} aria-label="the visitor’s way">
      <h3>
        The same visitor{' '}
        <span className="quiet">
          {many(sessions.length, 'session')}, {many(views, 'view')}
          {more && '; there are earlier ones'}
        </span>
      </h3>
      <ol>
        {sessions.map((s) => (
          <li key={s.begin}>
            <span className="num">{moment(s.begin)}</span>
            <b>{s.channel}</b>
            <span className="mono">
              {s.source} / {s.medium}
            </span>
            <span className={css.pages}>
              {s.pages.map((p) => (
                <span
                  key={p.arrival}
                  title={`${clock(p.at)} ${p.url}`}
                  data-on={p.arrival === arrival || undefined}
                  data-converts={p.conversion ? p.conversion.counts : undefined}
                >
                  {p.conversion ? converted(p.conversion) : path(p.url)}
                </span>
              ))}
            </span>
          </li>
        ))}
      </ol>
      <Kept key={arrival} arrival={arrival} />
    </section>
  );
}

const path = (url: string): string => /^[a-z]+:\/\/[^/?#]*([^?#]*)/i.exec(url)?.[1] || '/';
