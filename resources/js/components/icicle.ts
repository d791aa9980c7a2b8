import type { Schema } from '../api/client';

export type Cell = Schema['Picture']['items'][number];

export interface Placed extends Cell {
  x: number;
  y: number;
  width: number;
  height: number;
}

/**
 * Lays an account's levels out side by side, widest first; each element is as high as its share of its parent's ads.
 * What is too small to see is left out.
 */
export function layOut(cells: readonly Cell[], width: number, height: number, least = 1): Placed[] {
  const depths = [...new Set(cells.map((c) => c.depth))].sort((a, b) => a - b);
  const column = width / Math.max(1, depths.length);
  const children = new Map<number | null, Cell[]>();
  const ids = new Set(cells.map((c) => c.id));
  for (const cell of cells) {
    const parent = cell.parent !== null && ids.has(cell.parent) ? cell.parent : null;
    children.set(parent, [...(children.get(parent) ?? []), cell]);
  }
  const placed: Placed[] = [];
  const place = (parent: number | null, top: number, room: number, ads: number) => {
    let y = top;
    for (const cell of children.get(parent) ?? []) {
      const h = ads === 0 ? 0 : (room * cell.ads) / ads;
      if (h >= least) {
        placed.push({ ...cell, x: depths.indexOf(cell.depth) * column, y, width: column, height: h });
        place(cell.id, y, h, cell.ads);
      }
      y += h;
    }
  };
  const roots = children.get(null) ?? [];
  place(
    null,
    0,
    height,
    roots.reduce((n, c) => n + c.ads, 0),
  );
  return placed;
}

/** Where an arrow leads from an element; from none, to the first. */
export function neighbour(placed: readonly Placed[], at: number | null, key: string): number | null {
  const here = placed.find((c) => c.id === at);
  if (!here) return placed[0]?.id ?? null;
  const level = placed.filter((c) => c.depth === here.depth);
  const along = (step: number) => level[level.indexOf(here) + step]?.id ?? null;
  switch (key) {
    case 'ArrowDown':
      return along(1);
    case 'ArrowUp':
      return along(-1);
    case 'ArrowLeft':
      return placed.find((c) => c.id === here.parent)?.id ?? null;
    case 'ArrowRight':
      return placed.find((c) => c.parent === here.id)?.id ?? null;
    default:
      return null;
  }
}
