import { Checkbox } from '@mantine/core';
import { keepPreviousData, useInfiniteQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { api, data } from '../../api/client';
import { Difference } from '../../components/Difference';
import { Notice } from '../../components/Notice';
import { Place } from '../../components/Place';
import { Ribbon } from '../../components/Ribbon';
import { clock, moment } from '../../lib/moments';
import { many, num } from '../../lib/numbers';
import { keyOf } from '../../lib/queries';
import { useHere } from '../../lib/useClient';
import { arrivedOf, wayOf, type Item } from './days';
import css from './ledger.module.css';

/** A day of an account: what each ad sent, what arrived of it, and what is otherwise by now. */
export function OneDay({ account, day }: { account: number; day: string }) {
  const { client, to } = useHere();
  const navigate = useNavigate();
  const [arrived, setArrived] = useState(false);
  const [on, setOn] = useState(0);
  const [open, setOpen] = useState<ReadonlySet<number>>(new Set());
  const found = useInfiniteQuery({
    queryKey: keyOf('past-day', account, day, arrived),
    initialPageParam: 0,
    queryFn: ({ pageParam }) =>
      data(
        api.GET('/clients/{client}/accounts/{account}/day', {
          params: { path: { client: client.id, account }, query: { day, arrived: arrived ? 1 : 0, offset: pageParam } },
        }),
      ),
    getNextPageParam: (last, pages) => {
      const so = pages.reduce((n, page) => n + page.items.length, 0);
      return last.items.length > 0 && so < last.total ? so : undefined;
    },
    placeholderData: keepPreviousData,
  });
  if (found.error) return <Notice>{found.error.message}</Notice>;
  if (!found.data) return null;
  const [first] = found.data.pages;
  const items = found.data.pages.flatMap((page) => page.items);
  const turn = (node: number) =>
    setOpen(new Set(open.has(node) ? [...open].filter((n) => n !== node) : [...open, node]));
  return (
    <>
      <p className={css.dayLine}>
        <span>
          {many(first?.total ?? 0, 'ad')}
          {first && first.hours !== 24 && `; clocks were changed, so the day has ${first.hours} hours`}
          {first &&
            !first.isKnown &&
            `; what they sent is not known: the account was first brought in ${
              first.knownSince === null ? 'never' : moment(first.knownSince)
            }`}
        </span>
        <Checkbox
          size="xs"
          label="only those of which something arrived"
          checked={arrived}
          onChange={(e) => {
            setArrived(e.currentTarget.checked);
            setOn(0);
          }}
        />
      </p>
      <div className={css.day}>
        <div
          data-unknown={(first && !first.isKnown) || undefined}
          role="grid"
          aria-label="ads on that day"
          tabIndex={0}
          aria-activedescendant={items[on] ? `day-${on}` : undefined}
          onKeyDown={(event) => {
            if (event.target !== event.currentTarget) return;
            const item = items[on];
            const next = { ArrowDown: on + 1, ArrowUp: on - 1, Home: 0, End: items.length - 1 }[event.key];
            if (next !== undefined) {
              event.preventDefault();
              const at = Math.max(0, Math.min(items.length - 1, next));
              setOn(at);
              document.getElementById(`day-${at}`)?.scrollIntoView({ block: 'nearest' });
              if (at > items.length - 5 && found.hasNextPage) void found.fetchNextPage();
            }
            if (item && event.key === 'Enter') void navigate(to(`trace/${item.node}`));
            if (item && (event.key === 'ArrowRight') !== open.has(item.node) && /^Arrow(Right|Left)$/.test(event.key))
              turn(item.node);
          }}
        >
          {items.map((item, i) => (
            <div
              key={item.node}
              id={`day-${i}`}
              role="row"
              aria-selected={i === on}
              aria-expanded={item.since.length > 0 ? open.has(item.node) : undefined}
              className={css.ad}
              onClick={() => setOn(i)}
            >
              <span role="gridcell">
                <Link to={to(`trace/${item.node}`)}>{item.name}</Link>
                <span className="quiet" title={item.path.join(' › ')}>
                  {item.path.join(' › ')}
                </span>
              </span>
              <span role="gridcell">
                <Sent item={item} />
                {open.has(item.node) && <Since item={item} />}
              </span>
              <span role="gridcell">
                <Came item={item} />
                {item.since.length > 0 && (
                  <button type="button" className={css.link} tabIndex={-1} onClick={() => turn(item.node)}>
                    {many(item.since.length, 'place')} otherwise now
                  </button>
                )}
              </span>
            </div>
          ))}
        </div>
        {found.hasNextPage && (
          <button type="button" className={css.link} onClick={() => void found.fetchNextPage()}>
            {num((first?.total ?? 0) - items.length)} more
          </button>
        )}
      </div>
    </>
  );
}

function Sent({ item }: { item: Item }) {
  if (item.sent.length === 0) return <span className="quiet">not known</span>;
  return item.sent.map((sent, i) => (
    <div key={sent.since} className={css.sent} data-several={item.sent.length > 1 || undefined}>
      {item.sent.length > 1 && <span className="quiet">{i === 0 ? 'first' : clock(sent.since)}</span>}
      <Ribbon segments={sent.ribbon} compact label={`sent since ${moment(sent.since)}`} />
    </div>
  ));
}

function Came({ item }: { item: Item }) {
  const views = item.arrived.reduce((n, way) => n + way.views, 0);
  return (
    <>
      {views > 0 || item.clicks ? <b>{arrivedOf(item)}</b> : <span className="quiet">{arrivedOf(item)}</span>}
      {item.arrived.map((way, i) => (
        <span key={i} className={css.way} title={wayOf(way.values)}>
          <i style={{ width: `${(100 * way.views) / Math.max(1, views)}%` }} aria-hidden />
          <span className="num">{num(way.views)}</span> {wayOf(way.values)}
        </span>
      ))}
      {item.goneAt && <span className="quiet">gone {moment(item.goneAt)}</span>}
    </>
  );
}

function Since({ item }: { item: Item }) {
  return (
    <ul className={css.since} aria-label="otherwise now">
      {item.since.map((d) => (
        <li key={`${d.node} ${d.kind} ${d.custom}`}>
          <span className="quiet">
            {d.level} {d.name} <Place kind={d.kind} name={d.custom} />
          </span>
          <span className="mono">
            <Difference before={d.before} after={d.after} />
          </span>
        </li>
      ))}
    </ul>
  );
}
