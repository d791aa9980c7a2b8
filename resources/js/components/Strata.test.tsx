import { cleanup, fireEvent, render, screen, within } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { Schema } from '../api/client';
import { Strata } from './Strata';

afterEach(cleanup);

const STRATA: Schema['Stratum'][] = [
  {
    node: 1,
    level: 'Account',
    name: 'Velmar',
    slots: ['template', 'suffix'],
    texts: [{ slot: 'template', text: '{landing}?a=1', state: 'hidden', why: 'hidden by the campaign’s own template' }],
    custom: [],
  },
  {
    node: 2,
    level: 'Campaign',
    name: 'Isle',
    slots: ['template', 'suffix'],
    texts: [{ slot: 'template', text: '{landing}?a=2', state: 'counts', why: null }],
    custom: [{ name: 'name', written: 'my.name', text: 'isle' }],
  },
  { node: 3, level: 'Ad group', name: 'Foot', slots: ['template', 'suffix'], texts: [], custom: [] },
];

describe('Strata', () => {
  it('has a layer for each level, widest first, and says which text counts and why another does not', () => {
    render(<Strata strata={STRATA} />);
    const layers = screen.getAllByRole('listitem');
    expect(layers.map((l) => within(l).queryByText(/Account|Campaign|Ad group/)?.textContent)).toEqual([
      'Account',
      'Campaign',
      'Ad group',
    ]);
    expect(layers[0]!.querySelector('[data-state]')?.getAttribute('data-state')).toBe('hidden');
    expect(within(layers[0]!).getByText('hidden by the campaign’s own template')).toBeTruthy();
    expect(layers[1]!.querySelector('[data-state]')?.getAttribute('data-state')).toBe('counts');
    expect(within(layers[1]!).getByText('my.name = isle')).toBeTruthy();
    expect(within(layers[2]!).getByText('says nothing')).toBeTruthy();
  });

  it('only reads where nothing can be tried', () => {
    render(<Strata strata={STRATA} />);
    expect(screen.queryByRole('button')).toBeNull();
  });

  it('tries another text as it is typed, and clears with an empty one', () => {
    const onTry = vi.fn();
    render(<Strata strata={STRATA} onTry={onTry} />);
    fireEvent.click(screen.getByRole('button', { name: 'try another template for Campaign' }));
    fireEvent.change(screen.getByLabelText('template of Campaign'), { target: { value: '{landing}?b' } });
    expect(onTry).toHaveBeenLastCalledWith({ node: 2, slot: 'template', text: '{landing}?b' });
    fireEvent.change(screen.getByLabelText('template of Campaign'), { target: { value: '' } });
    expect(onTry).toHaveBeenLastCalledWith({ node: 2, slot: 'template', text: null });
  });

  it('says that a text is tried and not saved', () => {
    render(<Strata strata={STRATA} tried={[{ node: 2, slot: 'template', text: 'x' }]} onTry={() => undefined} />);
    expect(screen.getAllByText('tried, not saved')).toHaveLength(1);
  });
});
