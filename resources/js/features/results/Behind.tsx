import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { api, data } from '../../api/client';
import { Notice } from '../../components/Notice';
import { moment } from '../../lib/moments';
import { many } from '../../lib/numbers';
import { keyOf } from '../../lib/queries';
import { useHere } from '../../lib/useClient';
import { Way } from '../arrivals/Way';
import { read } from './measures';
import { aboveAsOnly, type Question } from './question';
import css from './results.module.css';

/** What stands behind a line: its sessions, the latest first, and the way of one visitor. */
export function Behind({
  question,
  days,
  path,
  name,
  onClose,
}: {
  question: Question;
  days: { from: string; to: string };
  path: readonly string[];
  name: string;
  onClose: () => void;
}) {
  const { client, to } = useHere();
  const [picked, setPicked] = useState<number | null>(null);
  const where = [...question.where, ...aboveAsOnly(question, path)];
  const body = { ...days, by: [], where, limit: 100, reading: question.reading ?? null };
  const sessions = useQuery({
    queryKey: keyOf('results', client.id, 'sessions', body),
    queryFn: () =>
      data(api.POST('/clients/{client}/results/sessions', { params: { path: { client: client.id } }, body })),
  });
  if (sessions.error) return <Notice>{sessions.error.message}</Notice>;
  const items = sessions.data?.items ?? [];
  const one = items.find((s) => s.arrival === picked) ?? items[0];
  return (
    <aside className={css.behind} aria-label={`sessions of ${name}`}>
      <header>
        <h2>{name}</h2>
        <span className="quiet">
          {sessions.data && `the latest ${many(items.length, 'session')}${sessions.data.more ? ' of more' : ''}`}
        </span>
        <span style={{ flex: 1 }} />
        <button type="button" className={css.link} onClick={onClose}>
          close <kbd>Esc</kbd>
        </button>
      </header>
      <ol
        onKeyDown={(event) => {
          const i = items.findIndex((s) => s.arrival === one?.arrival);
          const next = { ArrowDown: items[i + 1], ArrowUp: items[i - 1] }[event.key];
          if (!next) return;
          event.preventDefault();
          setPicked(next.arrival);
          event.currentTarget.querySelector<HTMLElement>(`[data-session="${next.arrival}"]`)?.focus();
        }}
      >
        {items.map((s) => (
          <li key={s.arrival} data-on={s.arrival === one?.arrival || undefined}>
            <button
              type="button"
              data-session={s.arrival}
              tabIndex={s.arrival === one?.arrival ? 0 : -1}
              aria-pressed={s.arrival === one?.arrival}
              onClick={() => setPicked(s.arrival)}
            >
              <span className="num">{moment(s.at)}</span>
              <span className="mono">
                {s.source || '–'} / {s.medium || '–'}
              </span>
              <span title={s.landing}>{pathOf(s.landing)}</span>
              <b className="num">
                {s.revenue !== null && s.currency !== null
                  ? read('revenue', s.revenue, s.currency)
                  : many(s.views, 'view')}
              </b>
            </button>
          </li>
        ))}
      </ol>
      {sessions.data && items.length === 0 && <p className="quiet">No session stands behind it, only figures.</p>}
      {one && (
        <div className={css.one}>
          {one.ad && (
            <p>
              came by <Link to={to(`trace/${one.ad.id}`)}>{one.ad.name}</Link>
            </p>
          )}
          <Way arrival={one.arrival} />
        </div>
      )}
    </aside>
  );
}

const pathOf = (url: string): string => /^[a-z]+:\/\/[^/?#]*([^?#]*)/i.exec(url)?.[1] || '/';
