import { useQuery } from '@tanstack/react-query';
import { NavLink, useParams } from 'react-router';
import { api, data } from '../../api/client';
import { Notice } from '../../components/Notice';
import { many } from '../../lib/numbers';
import { keyOf } from '../../lib/queries';
import { useHere } from '../../lib/useClient';
import { FeedSight } from './FeedSight';
import { NewFeed } from './NewFeed';
import css from './feeds.module.css';

/** Product lists: where they come from, what rules do to their links, and where they are handed on. */
export default function FeedsPage() {
  const { client, mayEdit, to } = useHere();
  const { feed } = useParams();
  const feeds = useQuery({
    queryKey: keyOf('feeds', client.id),
    queryFn: () => data(api.GET('/clients/{client}/feeds', { params: { path: { client: client.id } } })),
    refetchInterval: 5000,
  });
  if (feeds.error) return <Notice>{feeds.error.message}</Notice>;
  if (!feeds.data) return null;
  const items = feeds.data.items;
  const one = items.find((f) => String(f.id) === feed) ?? (feed === undefined ? items[0] : undefined);
  return (
    <div className={css.page}>
      <nav className={css.lists} aria-label="product lists">
        {items.map((f) => (
          <NavLink key={f.id} to={to(`feeds/${f.id}`)} className={`${css.listed} ${f.id === one?.id ? css.here : ''}`}>
            <b>{f.name}</b>
            <span className="quiet">
              {f.kept ? many(f.kept.items, 'item') : 'nothing has come yet'}
              {f.out && ' · handed on'}
            </span>
            {(f.problem !== null || f.held !== null) && <em>{f.held ? 'a list is held' : 'it can’t be fetched'}</em>}
          </NavLink>
        ))}
        {mayEdit && <NewFeed isFirst={items.length === 0} />}
      </nav>
      {one ? (
        <FeedSight key={one.id} feed={one} />
      ) : (
        <p className={css.none}>
          A shop’s product list goes out to listings, paid for and not. Give its address, and its links carry what was
          agreed on: no platform’s template reaches them.
        </p>
      )}
    </div>
  );
}
