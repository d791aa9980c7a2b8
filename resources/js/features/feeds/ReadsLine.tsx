import { NativeSelect } from '@mantine/core';
import type { Schema } from '../../api/client';
import type { Reads } from './rules';
import css from './feeds.module.css';

type Column = Schema['FeedWhole']['columns'][number];

/** How the list is read: which column tells items apart, which have links, and whether those are paid for. */
export function ReadsLine({
  reads,
  columns,
  onChange,
}: {
  reads: Reads;
  columns: readonly Column[];
  onChange?: ((reads: Reads) => void) | undefined;
}) {
  const names = columns.map((c) => c.name);
  const links = names.filter((name) => !reads.links.some((l) => l.column === name));
  const set = (some: Partial<Reads>) => onChange?.({ ...reads, ...some });
  return (
    <div className={css.reads}>
      <span>items are told apart by</span>
      <NativeSelect
        size="xs"
        aria-label="the column that tells items apart"
        disabled={!onChange}
        data={[...new Set([reads.id, ...names])]}
        value={reads.id}
        onChange={(e) => set({ id: e.target.value })}
      />
      {reads.links.map((link) => (
        <span key={link.column} className={css.linkColumn}>
          <b className="mono">{link.column}</b>
          <button
            type="button"
            className={css.link}
            disabled={!onChange}
            aria-label={`listings by ${link.column} are ${link.kind}; change that`}
            onClick={() =>
              set({
                links: reads.links.map((l) =>
                  l === link ? { ...l, kind: l.kind === 'paid' ? ('unpaid' as const) : ('paid' as const) } : l,
                ),
              })
            }
          >
            {link.kind}
          </button>
          {onChange && reads.links.length > 1 && (
            <button
              type="button"
              className={css.link}
              aria-label={`${link.column} has no links`}
              onClick={() => set({ links: reads.links.filter((l) => l !== link) })}
            >
              ×
            </button>
          )}
        </span>
      ))}
      {onChange && links.length > 0 && (
        <NativeSelect
          size="xs"
          aria-label="another column with links"
          data={[{ value: '', label: 'another column with links …' }, ...links]}
          value=""
          onChange={(e) => set({ links: [...reads.links, { column: e.target.value, kind: 'unpaid' }] })}
        />
      )}
    </div>
  );
}
