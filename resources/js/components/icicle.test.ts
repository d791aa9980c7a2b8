import { describe, expect, it } from 'vitest';
import { layOut, neighbour, type Cell } from './icicle';

const cell = (id: number, parent: number | null, depth: number, ads: number): Cell => ({
  id,
  parent,
  depth,
  name: `n${id}`,
  many: 1,
  from: id,
  to: id,
  ads,
  proven: ads,
  broken: 0,
  untracked: 0,
});

describe('the picture of an account', () => {
  const cells = [
    cell(1, null, 0, 10),
    cell(2, 1, 1, 6),
    cell(3, 1, 1, 4),
    cell(4, 2, 2, 3),
    cell(5, 2, 2, 3),
    cell(6, 3, 2, 4),
  ];

  it('gives each level a column and each element its share of its parent', () => {
    const placed = layOut(cells, 300, 100);
    expect(placed.map((p) => [p.id, p.x, p.y, p.width, p.height])).toEqual([
      [1, 0, 0, 100, 100],
      [2, 100, 0, 100, 60],
      [4, 200, 0, 100, 30],
      [5, 200, 30, 100, 30],
      [3, 100, 60, 100, 40],
      [6, 200, 60, 100, 40],
    ]);
  });

  it('covers the same area on every level, whatever the numbers', () => {
    const many = [
      cell(1, null, 0, 997),
      ...Array.from({ length: 20 }, (_, i) => cell(i + 2, 1, 1, i === 0 ? 997 - 19 * 37 : 37)),
    ];
    const heights = layOut(many, 200, 230)
      .filter((p) => p.depth === 1)
      .reduce((n, p) => n + p.height, 0);
    expect(heights).toBeCloseTo(230, 6);
  });

  it('takes an element whose parent is not shown for a root: that is what zooming in is', () => {
    const placed = layOut(
      cells.filter((c) => [2, 4, 5].includes(c.id)),
      300,
      100,
    );
    expect(placed.map((p) => [p.id, p.x, p.height])).toEqual([
      [2, 0, 100],
      [4, 150, 50],
      [5, 150, 50],
    ]);
  });

  it('is walked with the arrows: along a level, to the wider one and to the narrower', () => {
    const placed = layOut(cells, 300, 100);
    const walk = (from: number, ...keys: string[]) => keys.reduce((at, key) => neighbour(placed, at, key) ?? at, from);
    expect(walk(1, 'ArrowRight')).toBe(2);
    expect(walk(1, 'ArrowRight', 'ArrowDown')).toBe(3);
    expect(walk(5, 'ArrowDown')).toBe(6);
    expect(walk(6, 'ArrowDown')).toBe(6);
    expect(walk(6, 'ArrowUp', 'ArrowUp', 'ArrowLeft', 'ArrowLeft', 'ArrowLeft')).toBe(1);
    expect(walk(3, 'ArrowRight')).toBe(6);
    expect(walk(4, 'ArrowRight')).toBe(4);
    expect(walk(99, 'ArrowDown')).toBe(1);
    expect(neighbour(placed, 1, 'x')).toBeNull();
  });

  it('leaves out what is too small to see, and does not divide by no ads', () => {
    expect(layOut([cell(1, null, 0, 1000), cell(2, 1, 1, 999), cell(3, 1, 1, 1)], 100, 100).map((p) => p.id)).toEqual([
      1, 2,
    ]);
    expect(layOut([cell(1, null, 0, 0)], 100, 100)).toEqual([]);
    expect(layOut([], 100, 100)).toEqual([]);
  });
});
