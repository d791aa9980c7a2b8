// @vitest-environment happy-dom
import { MantineProvider } from '@mantine/core';
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { afterEach, expect, test, vi } from 'vitest';
import { FindingList, Stretch, type Finding } from './FindingList';

afterEach(cleanup);

const finding = (more: Partial<Finding> = {}): Finding => ({
  code: 'key-typo',
  severity: 'error',
  node: 7,
  level: 'campaign',
  name: 'Isles',
  slot: 'suffix',
  custom: null,
  at: 0,
  length: 9,
  key: 'utm_sorce',
  reason: 'utm_sorce is read as a key of its own.',
  fix: { says: 'write utm_source', text: 'utm_source=x' },
  ...more,
});
const show = (element: React.ReactNode) => render(<MantineProvider>{element}</MantineProvider>);

test('each finding says how bad it is, why, where, and how many show it', () => {
  show(
    <FindingList
      label="findings"
      findings={[
        finding({ count: 12 }),
        finding({ severity: 'note', code: 'overridden', fix: null, name: null, slot: null }),
      ]}
    />,
  );
  const items = screen.getAllByRole('listitem');
  expect(items).toHaveLength(2);
  expect(items[0]).toHaveProperty('textContent', expect.stringContaining('utm_sorce is read as a key of its own.'));
  expect(items[0]!.textContent).toContain('campaign “Isles” · suffix');
  expect(items[0]!.textContent).toContain('12');
  expect(screen.getAllByRole('img').map((m) => m.getAttribute('aria-label'))).toEqual(['error', 'note']);
});

test('a fix is offered only where there is one, and does not also pick the finding', () => {
  const onFix = vi.fn();
  const onPick = vi.fn();
  const fixable = finding();
  show(
    <FindingList
      label="findings"
      findings={[fixable, finding({ fix: null })]}
      at={0}
      onFix={onFix}
      onPick={onPick}
      fixWords="try"
    />,
  );
  const buttons = screen.getAllByRole('button');
  expect(buttons.map((b) => b.textContent)).toEqual(['try: write utm_sourcef']);
  fireEvent.click(buttons[0]!);
  expect(onFix).toHaveBeenCalledWith(fixable);
  expect(onPick).not.toHaveBeenCalled();
  fireEvent.click(screen.getAllByRole('listitem')[1]!);
  expect(onPick).toHaveBeenCalledWith(expect.objectContaining({ fix: null }), 1);
});

test('without anybody to fix, no fix is offered', () => {
  show(<FindingList label="findings" findings={[finding()]} />);
  expect(screen.queryAllByRole('button')).toHaveLength(0);
});

test('the stretch is cut at bytes, as the server counts them', () => {
  const { container } = show(<Stretch text="é={x&y" at={3} length={2} />);
  expect(container.querySelector('mark')?.textContent).toBe('{x');
  expect(container.textContent).toContain('é={x&y');
});
