import { expect, test } from 'vitest';
import { ownPlanFor } from './ownPlan';
import type { Line, Row } from './useTree';

const line = (id: number, role: string): Line => ({
  row: { id, role, name: `row ${id}`, externalId: `x${id}` } as Row,
  indent: 0,
  open: false,
});
const lines = [line(1, 'campaign'), line(2, 'campaign'), line(3, 'group'), line(4, 'ad')];

test('campaigns that are chosen can have a plan of their own', () => {
  expect(ownPlanFor('reedrail', new Set([1, 2]), lines)).toEqual({
    title: 'row 1 and 1 more',
    for: { platforms: ['reedrail'], where: [{ field: 'campaign.id', is: ['x1', 'x2'] }] },
  });
  expect(ownPlanFor('reedrail', new Set([3]), lines)?.for.where).toEqual([{ field: 'group.id', is: ['x3'] }]);
});

test('what a plan can not tell apart, and rows that are out of sight, can not', () => {
  for (const chosen of [[], [4], [1, 3], [1, 9]]) {
    expect(ownPlanFor('reedrail', new Set(chosen), lines)).toBeNull();
  }
});
