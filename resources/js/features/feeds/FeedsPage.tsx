import { useMutation, useQuery } from '@tanstack/react-query';
import { NavLink, useNavigate, useParams } from 'react-router';
import { api, data, type Schema } from '../../api/client';
import { Notice } from '../../components/Notice';
import { many } from '../../lib/numbers';
import { keyOf, useChanged } from '../../lib/queries';
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
        {mayEdit && feeds.data.gone.length > 0 && <Gone feeds={feeds.data.gone} />}
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

/** Lists that were let go: nothing of them is lost. */
function Gone({ feeds }: { feeds: Schema['Feeds']['gone'] }) {
  const { client, to } = useHere();
  const navigate = useNavigate();
  const changed = useChanged();
  const back = useMutation({
    mutationFn: (feed: number) =>
      data(api.POST('/clients/{client}/feeds/{feed}/return', { params: { path: { client: client.id, feed } } })),
    onSuccess: (feed) => {
      changed('feeds');
      void navigate(to(`feeds/${feed.id}`));
    },
  });
  return (
    <details className={css.gone}>
      <summary className="quiet">{many(feeds.length, 'list')} let go</summary>
      {back.error && <Notice>{back.error.message}</Notice>}
      {feeds.map((f) => (
        <p key={f.id}>
          {f.name}{' '}
          <button type="button" className={css.link} onClick={() => back.mutate(f.id)}>
            fetch back
          </button>
        </p>
      ))}
    </details>
  );
}
