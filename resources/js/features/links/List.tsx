import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useRef } from 'react';
import type { Schema } from '../../api/client';
import { Ribbon } from '../../components/Ribbon';
import { withoutHost } from '../../components/withoutHost';
import { money, num } from '../../lib/numbers';
import { asCells } from './bench';
import css from './links.module.css';

type Link = Schema['Link'];

const ROW = 38;

/** The links that there are, the latest first, for the keyboard. */
export function List({
  links,
  currency,
  one,
  onPick,
  onMore,
}: {
  links: readonly Link[];
  currency: string;
  one: number | null;
  onPick: (id: number) => void;
  onMore?: (() => void) | undefined;
}) {
  const scroller = useRef<HTMLDivElement>(null);
  const rows = useVirtualizer({
    count: links.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW,
    overscan: 10,
    scrollPaddingStart: 28,
  });
  const items = rows.getVirtualItems();
  const last = items.at(-1)?.index ?? 0;
  useEffect(() => {
    if (last >= links.length - 5) onMore?.();
  }, [last, links.length, onMore]);
  const at = links.findIndex((link) => link.id === one);
  const most = Math.max(1, ...links.map((link) => link.opened));
  const onKeyDown = (event: React.KeyboardEvent) => {
    const current = links[at];
    if ((event.ctrlKey || event.metaKey) && event.key === 'c' && window.getSelection()?.isCollapsed) {
      void navigator.clipboard.writeText(asCells(event.shiftKey ? links : current ? [current] : []));
      return;
    }
    const to = { ArrowDown: at + 1, ArrowUp: at - 1, Home: 0, End: links.length - 1 }[event.key];
    const next = to === undefined ? undefined : links[to];
    if (!next) return;
    event.preventDefault();
    onPick(next.id);
    rows.scrollToIndex(to!);
  };
  if (links.length === 0)
    return <p className={css.none}>None yet. A link that is made stands here, with what it brought.</p>;
  return (
    <div
      className={css.list}
      ref={scroller}
      role="grid"
      aria-label="links, the latest first"
      aria-rowcount={links.length + 1}
      tabIndex={0}
      aria-activedescendant={at < 0 ? undefined : `link-${one}`}
      onKeyDown={onKeyDown}
    >
      <div className={css.heads} role="row">
        {['what for, and the link', 'short address', 'channel', 'opened', 'sessions', 'conversions', 'revenue'].map(
          (h) => (
            <span key={h} role="columnheader">
              {h}
            </span>
          ),
        )}
      </div>
      <div style={{ height: rows.getTotalSize(), position: 'relative' }} role="presentation">
        {items.map((item) => {
          const link = links[item.index];
          if (!link) return null;
          const worst = link.findings[0];
          return (
            <div
              key={link.id}
              id={`link-${link.id}`}
              role="row"
              className={css.line}
              aria-selected={link.id === one}
              style={{ transform: `translateY(${item.start}px)` }}
              onClick={() => onPick(link.id)}
            >
              <span role="gridcell" className={css.what}>
                <b>{link.title || <span className="quiet">without a name</span>}</b>
                <Ribbon segments={withoutHost(link.segments)} compact bad={link.findings.flatMap((f) => f.key ?? [])} />
              </span>
              <span role="gridcell" className="mono">
                {link.host}
                {link.code && `/s/${link.code}`}
                {link.endsAt && new Date(link.endsAt) < new Date() && <em>ended</em>}
              </span>
              <span role="gridcell" title={worst?.reason}>
                {worst && worst.severity !== 'note' && <i aria-hidden>!</i>}
                {link.channel}
              </span>
              <span role="gridcell" className={`num ${css.bar}`}>
                {link.short === null ? '' : num(link.opened)}
                <i aria-hidden style={{ width: `${(100 * link.opened) / most}%` }} />
              </span>
              <span role="gridcell" className="num">
                {num(link.sessions)}
              </span>
              <span role="gridcell" className="num">
                {link.conversions > 0 ? num(Math.round(link.conversions * 10) / 10) : ''}
              </span>
              <span role="gridcell" className="num">
                {link.revenue[currency] === undefined ? '' : money(link.revenue[currency], currency)}
              </span>
            </div>
          );
        })}
      </div>
    </div>
  );
}
