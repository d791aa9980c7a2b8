import { expect, test } from 'vitest';
import type { Schema } from '../../api/client';
import { anotherOf, lacking } from './variantText';

const plan: Schema['PlanDocument'] = {
  format: 'vestigon.plan/1',
  id: 'p',
  title: 'All',
  clickId: 'required',
  parameters: [{ key: 'utm_source', parts: [{ text: 'north' }] }],
};

test('another plan begins as what is there, for campaigns that are still to be named', () => {
  const first = anotherOf(plan, ['ad.id', 'campaign.part.market']);
  expect(first.parameters).toEqual(plan.parameters);
  expect(first.parameters).not.toBe(plan.parameters);
  expect(first.for).toEqual({ where: [{ field: 'campaign.part.market', is: [] }] });
  const second = anotherOf({ ...plan, variants: [{ ...first, id: 'variant-2' }] }, []);
  expect(second.id).toBe('variant-3');
  expect(second.for.where?.[0]?.field).toBe('campaign.name');
});

test('what it lacks is told until it can count', () => {
  const variant = anotherOf(plan, []);
  expect(lacking(variant)).toBe('Say which values campaign.name has where it counts.');
  expect(lacking({ ...variant, for: {} })).toMatch(/^Say for which platforms/);
  expect(lacking({ ...variant, for: { types: ['text'] } })).toBeNull();
  expect(lacking({ ...variant, title: ' ', for: { types: ['text'] } })).toBe('It has no title yet.');
});
