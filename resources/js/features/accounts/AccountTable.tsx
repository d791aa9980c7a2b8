import { SegmentedControl, TextInput } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import { api, data, type Schema } from '../../api/client';
import { Notice } from '../../components/Notice';
import { RibbonLegend } from '../../components/Ribbon';
import { useHere } from '../../lib/useClient';
import { useKeys } from '../../lib/useKeys';
import { Chosen } from './Chosen';
import { RowInFull } from './RowInFull';
import { TableRow } from './TableRow';
import { overOf, useChoice, type Act, type Over } from './choice';
import { asCells } from './cells';
import { ownPlanFor } from './ownPlan';
import { useSends } from './useSends';
import { useTree, type Filter, type Row } from './useTree';
import css from './accounts.module.css';
import { num } from '../../lib/numbers';
import { keyOf } from '../../lib/queries';

const ROW = 26;

/** The account as a tree and a table at once, on virtual rows, for the keyboard. */
export function AccountTable({
  account,
  under,
  onAct,
}: {
  account: Schema['Account'];
  under: number | null;
  onAct: (act: Act, over: Over, count: number | null) => void;
}) {
  const { client, mayEdit, to } = useHere();
  const navigate = useNavigate();
  const [query] = useSearchParams();
  const [filter, setFilter] = useState<Filter>({ q: '', state: null });
  const [at, setAt] = useState(0);
  const scroller = useRef<HTMLDivElement>(null);
  const search = useRef<HTMLInputElement>(null);
  const tree = useTree(client.id, account.id, filter, under);
  const { lines, keys } = tree;
  const [named, setNamed] = useState(false);
  const parts = named && tree.parts.length > 0 ? tree.parts : null;
  const sends = useSends(client.id, account.id, lines, keys.length > 0 && parts === null && filter.state !== 'gone');
  const choice = useChoice(lines);
  const over = overOf(choice.chosen, filter, under);
  const count = choice.chosen.size || (!tree.more && (filter.q !== '' || filter.state !== null) ? tree.total : null);
  const gone = filter.state === 'gone';
  const own = useMemo(() => ownPlanFor(account.dialect, choice.chosen, lines), [account.dialect, choice.chosen, lines]);
  const ownPlan = useCallback(() => own && void navigate(to('plan'), { state: own }), [own, navigate, to]);
  const act = useCallback((what: Act) => !gone && onAct(what, over, count), [gone, onAct, over, count]);
  const rows = useVirtualizer({
    count: lines.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW,
    overscan: 12,
    scrollPaddingStart: ROW,
  });

  useOpenAt(Number(query.get('at')) || null, tree.openAll, (id) =>
    setAt(
      Math.max(
        0,
        lines.findIndex((l) => l.row?.id === id),
      ),
    ),
  );

  const visible = rows.getVirtualItems();
  useEffect(() => {
    for (const item of visible) {
      const line = lines[item.index];
      if (line && line.row === null && line.index > 0) tree.want(line.parent, line.index);
    }
  });

  const move = (to: number) => {
    const next = Math.max(0, Math.min(lines.length - 1, to));
    setAt(next);
    rows.scrollToIndex(next);
  };
  const current = lines[at]?.row ?? null;
  const parentOf = (row: Row) => lines.findIndex((l) => l.row?.id === row.parent);
  const pick = (row: Row) => (row.isAd ? void navigate(to(`trace/${row.id}`)) : tree.toggle(row.id));
  const onKeyDown = (event: React.KeyboardEvent) => {
    if (event.shiftKey && (event.key === 'ArrowDown' || event.key === 'ArrowUp') && current) {
      const next = Math.max(0, Math.min(lines.length - 1, at + (event.key === 'ArrowDown' ? 1 : -1)));
      choice.put([current.id, ...(lines[next]?.row ? [lines[next].row.id] : [])]);
    }
    const keysOf: Record<string, () => void> = {
      ArrowDown: () => move(at + 1),
      ArrowUp: () => move(at - 1),
      PageDown: () => move(at + 20),
      PageUp: () => move(at - 20),
      Home: () => move(0),
      End: () => move(lines.length - 1),
      ArrowRight: () => current && !current.isAd && tree.toggle(current.id, true),
      ArrowLeft: () => {
        const line = lines[at];
        if (line?.row && line.open) tree.toggle(line.row.id, false);
        else if (current && parentOf(current) >= 0) move(parentOf(current));
      },
      Enter: () => current && pick(current),
      ' ': () => current && choice.toggle(current.id),
      Escape: () => choice.clear(),
    };
    const does = event.ctrlKey || event.metaKey ? undefined : keysOf[event.key];
    if (does) {
      event.preventDefault();
      does();
    }
    if ((event.ctrlKey || event.metaKey) && event.key === 'c' && current && window.getSelection()?.isCollapsed) {
      void navigator.clipboard.writeText(asCells(current, keys));
    }
  };
  useKeys(
    useMemo(
      () => ({
        v: () => setNamed((on) => !on),
        '/': (e) => {
          e.preventDefault();
          search.current?.focus();
        },
        b: () => setFilter((f) => ({ ...f, state: f.state === 'broken' ? null : 'broken' })),
        c: () => act('line'),
        e: () => act('edit'),
        p: () => mayEdit && ownPlan(),
      }),
      [act, mayEdit, ownPlan],
    ),
  );
  // keep the keys' columns wide enough to read, and let the ribbon have the rest
  const narrow = (parts ?? keys).map(() => 'minmax(76px, 1fr)').join(' ');
  const columns = `minmax(190px, 1.6fr) 84px minmax(200px, 3fr) ${narrow}`;

  return (
    <>
      <div className={css.filters}>
        <TextInput
          ref={search}
          size="xs"
          w={220}
          aria-label="filter by name or number"
          placeholder="Filter by name or number"
          rightSection={<kbd>/</kbd>}
          value={filter.q}
          onChange={(e) => {
            setAt(0);
            setFilter({ ...filter, q: e.target.value });
          }}
          onKeyDown={(e) => {
            if (e.key === 'Escape') setFilter({ ...filter, q: '' });
            if (e.key === 'ArrowDown' || e.key === 'Enter') scroller.current?.focus();
          }}
        />
        <SegmentedControl
          size="xs"
          aria-label="only ads that are"
          value={filter.state ?? 'all'}
          onChange={(state) => {
            setAt(0);
            setFilter({ ...filter, state: state === 'all' ? null : (state as Filter['state']) });
          }}
          data={[
            { value: 'all', label: 'all' },
            { value: 'broken', label: 'broken' },
            { value: 'untracked', label: 'untracked' },
            { value: 'proven', label: 'proven' },
            ...(account.gone > 0 ? [{ value: 'gone', label: `gone ${num(account.gone)}` }] : []),
          ]}
        />
        {gone ? (
          <span className="quiet">not on the platform any more; kept as they were last</span>
        ) : (
          <Chosen
            chosen={choice.chosen.size}
            found={filter.q || filter.state ? tree.total : null}
            more={tree.more}
            onAct={act}
            onOwnPlan={own ? ownPlan : undefined}
            onClear={choice.clear}
          />
        )}
        <span style={{ flex: 1 }} />
        {tree.parts.length > 0 && (
          <SegmentedControl
            size="xs"
            aria-label="columns"
            value={named ? 'names' : 'keys'}
            onChange={(v) => setNamed(v === 'names')}
            data={[
              { value: 'keys', label: 'what arrives' },
              { value: 'names', label: 'parts of names' },
            ]}
          />
        )}
        <RibbonLegend />
      </div>
      {tree.error && <Notice>{tree.error.message}</Notice>}
      <div
        className={css.table}
        ref={scroller}
        tabIndex={0}
        role="treegrid"
        aria-label={`ads of ${account.name}`}
        aria-multiselectable="true"
        aria-rowcount={lines.length}
        aria-activedescendant={current ? `row-${current.id}` : undefined}
        onKeyDown={onKeyDown}
      >
        <div className={css.head} style={{ gridTemplateColumns: columns }} role="row">
          <span role="columnheader">name</span>
          <span role="columnheader">ads</span>
          <span role="columnheader">says · sends</span>
          {(parts ?? keys).map((key) => (
            <span key={key} role="columnheader" className="mono">
              {key.replace(/^utm_/, '')}
            </span>
          ))}
        </div>
        <div style={{ height: rows.getTotalSize(), position: 'relative' }}>
          {visible.map((item) => (
            <TableRow
              key={item.key}
              line={lines[item.index]!}
              columns={columns}
              keys={keys}
              parts={parts}
              sent={sends.get(lines[item.index]?.row?.id ?? -1)}
              top={item.start}
              height={ROW}
              on={item.index === at}
              chosen={choice.chosen.has(lines[item.index]?.row?.id ?? -1)}
              onClick={(e) => {
                setAt(item.index);
                const row = lines[item.index]?.row;
                if (row && (e.ctrlKey || e.metaKey)) choice.toggle(row.id);
              }}
              onPick={pick}
              onToggle={tree.toggle}
            />
          ))}
        </div>
        {!tree.pending && lines.length === 0 && (
          <p className={css.none}>
            {filter.q
              ? `No word of a name and no number begins with “${filter.q}”, and no number ends in it.`
              : 'No ad is in that state.'}
          </p>
        )}
      </div>
      <RowInFull row={current} />
    </>
  );
}

/** Opens the tree down to a node that the address names. */
function useOpenAt(node: number | null, open: (ids: readonly number[]) => void, show: (id: number) => void) {
  const { client } = useHere();
  const path = useQuery({
    queryKey: keyOf('node', node),
    queryFn: () =>
      data(api.GET('/clients/{client}/nodes/{node}', { params: { path: { client: client.id, node: node! } } })),
    enabled: node !== null,
  });
  const done = useRef<number | null>(null);
  useEffect(() => {
    if (!path.data || done.current === node) return;
    open(path.data.path.slice(0, -1).map((n) => n.id));
    done.current = node;
  }, [path.data, node, open]);
  const shown = useRef<number | null>(null);
  useEffect(() => {
    if (node !== null && done.current === node && shown.current !== node) {
      show(node);
      const timer = setTimeout(() => (shown.current = node), 1500);
      return () => clearTimeout(timer);
    }
    return undefined;
  });
}
