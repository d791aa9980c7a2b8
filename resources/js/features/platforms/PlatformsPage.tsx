import { useQuery } from '@tanstack/react-query';
import { Fragment, useState } from 'react';
import { Link, useParams } from 'react-router';
import { api, data, type Schema } from '../../api/client';
import { Notice } from '../../components/Notice';
import { useHere } from '../../lib/useClient';
import { TrackersView } from '../trackers/TrackersView';
import { PlatformView } from './PlatformView';
import css from './platforms.module.css';
import { keyOf } from '../../lib/queries';

const FAMILIES: Schema['Family'][] = ['search', 'social', 'native', 'display', 'portal'];

/** The platforms that the client knows, and the trackers that clicks pass: read, tried, written. */
export default function PlatformsPage({ trackers = false }: { trackers?: boolean }) {
  const { client, to } = useHere();
  const params = useParams();
  const [writing, setWriting] = useState<string | null>(null);
  const list = useQuery({
    queryKey: keyOf('platforms', client.id),
    queryFn: () => data(api.GET('/clients/{client}/platforms', { params: { path: { client: client.id } } })),
  });
  if (list.error) return <Notice>{list.error.message}</Notice>;
  if (!list.data) return null;
  const items = list.data.items;
  const own = items.filter((p) => p.own);
  const shown = [...own, ...FAMILIES.flatMap((f) => items.filter((p) => !p.own && p.family === f))];
  const id = trackers ? null : (params.platform ?? (shown.find((p) => p.accounts > 0) ?? shown[0])!.id);
  const group = (title: string, some: typeof items) =>
    some.length > 0 && (
      <Fragment key={title}>
        <h2>{title}</h2>
        {some.map((p) => (
          <Link
            key={p.id}
            to={to(`platforms/${p.id}`)}
            className={`${css.item} ${p.id === id ? css.on : ''}`}
            aria-current={p.id === id ? 'page' : undefined}
            onClick={() => setWriting(null)}
          >
            {p.title}
            {p.accounts > 0 && (
              <span className="quiet num" title={p.accounts === 1 ? 'one account' : `${p.accounts} accounts`}>
                {p.accounts}
              </span>
            )}
          </Link>
        ))}
      </Fragment>
    );
  return (
    <div className={css.page}>
      <nav className={css.list} aria-label="platforms">
        {group('your own', own)}
        {FAMILIES.map((f) =>
          group(
            f,
            items.filter((p) => !p.own && p.family === f),
          ),
        )}
        <h2>on the way</h2>
        <Link
          to={to('platforms/over/trackers')}
          className={`${css.item} ${trackers ? css.on : ''}`}
          aria-current={trackers ? 'page' : undefined}
        >
          Click trackers
        </Link>
      </nav>
      {id === null ? <TrackersView /> : <PlatformView key={id} id={id} writing={writing} onWriting={setWriting} />}
    </div>
  );
}
