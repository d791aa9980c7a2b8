import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { api, data, type Schema } from '../../api/client';
import { Notice } from '../../components/Notice';
import { Ribbon } from '../../components/Ribbon';
import { withoutHost } from '../../components/withoutHost';
import { moment } from '../../lib/moments';
import { keyOf } from '../../lib/queries';
import { useHere } from '../../lib/useClient';
import css from './trace.module.css';

type Sender = Schema['Senders']['items'][number];

/** What can have sent a URL: ads, with the click that it tells of, links, items of lists. */
export function Senders({ url }: { url: string }) {
  const { client, to } = useHere();
  const senders = useQuery({
    queryKey: keyOf('senders', client.id, url),
    queryFn: () =>
      data(api.POST('/clients/{client}/urls/senders', { params: { path: { client: client.id } }, body: { url } })),
    placeholderData: keepPreviousData,
    retry: false,
  });
  if (senders.error) return <Notice>{senders.error.message}</Notice>;
  if (!senders.data) return null;
  const { items, links, lists } = senders.data;
  return (
    <section aria-labelledby="senders">
      <h2 id="senders">Whose click it can be</h2>
      {links.length > 0 && (
        <ul className={css.senders}>
          {links.map((link) => (
            <li key={link.id}>
              <Link to={to(`links?at=${link.id}`)}>{link.title || 'a link without a name'}</Link>
              <span className="quiet">a link that was placed{link.short && ` · ${link.short}`}</span>
            </li>
          ))}
        </ul>
      )}
      {lists.map((one, i) => (
        <Listed key={i} {...one} />
      ))}
      {items.length === 0 && links.length + lists.length > 0 ? null : items.length === 0 ? (
        <p className={`quiet ${css.hint}`}>
          No ad that is imported sends this very URL, by its texts of today or of any day before.
        </p>
      ) : (
        <>
          {items.length > 1 && (
            <p className={`quiet ${css.hint}`}>Their texts can’t tell these {items.length} ads apart.</p>
          )}
          <ul className={css.senders}>
            {items.map((s, i) => (
              <li key={s.node}>
                <Link to={to(`trace/${s.node}`)}>{s.path.slice(1).join(' › ')}</Link>
                <span className="quiet">
                  {s.platform} · {s.externalId}
                  {stood(s)}
                </span>
                {JSON.stringify(s.values) !== JSON.stringify(items[i - 1]?.values) && (
                  <span className={css.values}>
                    {Object.entries(s.values).map(([field, value]) => (
                      <span key={field}>
                        <span className="quiet">{field}</span> <span className="mono">{value}</span>
                      </span>
                    ))}
                  </span>
                )}
              </li>
            ))}
          </ul>
        </>
      )}
    </section>
  );
}

/** An item of a product list, and what its rules have made of its link in turn. */
function Listed({ feed, item, kind, turns }: Schema['Senders']['lists'][number]) {
  const { to } = useHere();
  return (
    <div className={css.listed}>
      <p>
        <Link to={to(`feeds/${feed.id}`)}>
          {item} of {feed.name}
        </Link>
        <span className="quiet">{kind === 'paid' ? 'its link for paid listings' : 'its link for unpaid listings'}</span>
      </p>
      <ol>
        {turns.map((turn) => (
          <li key={turn.rule ?? 0}>
            <span className="quiet">
              {turn.rule === null ? 'as it came' : `rule ${turn.rule}${turn.title && `: ${turn.title}`}`}
            </span>
            <Ribbon segments={withoutHost(turn.segments)} compact />
          </li>
        ))}
      </ol>
    </div>
  );
}

function stood({ since, until }: Sender): string {
  return `${since ? ` · since ${moment(since)}` : ''}${until ? ` · until ${moment(until)}` : ''}`;
}
