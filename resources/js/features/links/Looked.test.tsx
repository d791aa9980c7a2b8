import { MantineProvider } from '@mantine/core';
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { afterEach, expect, test, vi } from 'vitest';
import type { Schema } from '../../api/client';
import { segment } from '../../components/segment.fixture';
import { EMPTY } from './bench';
import { Looked } from './Looked';

type Look = Schema['LinkLook'];

const look = (n: number, some: Partial<Look> = {}): Look => ({
  url: `https://a.example/?n=${n}`,
  segments: [segment('https://a.example/', 'landing'), segment(`?n=${n}`)],
  channel: 'E-mail',
  findings: [],
  allowed: true,
  double: null,
  sameAs: null,
  ...some,
});

const capital: Look['findings'][number] = {
  code: 'not-lowercase',
  severity: 'warning',
  key: 'utm_campaign',
  reason: '“Frost” has capital letters.',
  fix: { says: 'write frost', text: 'frost' },
};

afterEach(cleanup);

const show = (looks: Look[], pairs: Record<string, string> = { utm_campaign: 'Frost' }) => {
  const [onMend, onPick] = [vi.fn(), vi.fn()];
  render(
    <MantineProvider>
      <Looked row={{ ...EMPTY, pairs }} looks={looks} onMend={onMend} onPick={onPick} />
    </MantineProvider>,
  );
  return { onMend, onPick };
};

test('what is wrong with a row is said once, and one press mends its cell', () => {
  const { onMend } = show([look(1, { findings: [capital] }), look(2, { findings: [capital] })]);
  expect(screen.getAllByText('“Frost” has capital letters.')).toHaveLength(1);
  fireEvent.click(screen.getByRole('button', { name: 'campaign: write frost' }));
  expect(onMend).toHaveBeenCalledWith('utm_campaign', 'frost');
});

test('a cell with several words is not mended as one', () => {
  show([look(1, { findings: [capital] })], { utm_campaign: 'Frost | thaw' });
  expect(screen.queryByRole('button', { name: 'campaign: write frost' })).toBeNull();
});

test('many links of a row are told by their number, and how many of them can’t be made', () => {
  show([1, 2, 3, 4, 5].map((n) => look(n, { allowed: n < 5 })));
  expect(screen.getByText(/and 2 more links/)).toBeTruthy();
  expect(screen.getByText(/1 of which can’t be made/)).toBeTruthy();
});

test('a link that is there already is named, and looked at', () => {
  const { onPick } = show([look(1, { double: { id: 7, title: 'Letter', short: 'https://go.example/s/abc' } })]);
  expect(screen.getByText(/That link is there already, for Letter/)).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'look at it' }));
  expect(onPick).toHaveBeenCalledWith(7);
});
