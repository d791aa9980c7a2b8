import { MantineProvider } from '@mantine/core';
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { Ribbon } from './Ribbon';
import { segment } from './segment.fixture';

const show = (ui: React.ReactElement) => render(<MantineProvider>{ui}</MantineProvider>);
afterEach(cleanup);

const SEGMENTS = [
  segment('https://velmar.example/book', 'landing', { slot: 'landing', level: 'ad', name: 'Deck' }),
  segment('?utm_term=', 'suffix', { slot: 'suffix', level: 'account', name: 'Velmar' }),
  segment('a%20b', 'token', { slot: 'suffix', level: 'account', name: 'Velmar', token: 'term', field: 'keyword.text' }),
  segment('&nqcid=X', 'click-id', { token: 'nqcid' }),
];

describe('Ribbon', () => {
  it('shows the URL whole, each segment with its role', () => {
    show(<Ribbon segments={SEGMENTS} />);
    const ribbon = screen.getByRole('group', { name: 'click URL' });
    expect(ribbon.textContent).toBe('https://velmar.example/book?utm_term=a%20b&nqcid=X');
    expect([...ribbon.querySelectorAll<HTMLElement>('[data-role]')].map((b) => b.dataset.role)).toEqual([
      'landing',
      'suffix',
      'token',
      'click-id',
    ]);
  });

  it('marks the pairs that are wrong, over the token that fills them', () => {
    show(<Ribbon segments={SEGMENTS} bad={['utm_term']} />);
    expect([...document.querySelectorAll('[data-trouble]')].map((e) => e.textContent)).toEqual(['?utm_term=', 'a%20b']);
  });

  it('goes to where a segment comes from', () => {
    const pick = vi.fn();
    show(<Ribbon segments={SEGMENTS} onPick={pick} />);
    fireEvent.click(screen.getByText('a%20b'));
    expect(pick).toHaveBeenCalledWith(SEGMENTS[2]);
  });

  it('is one stop of the Tab key: the arrows go along it, Enter goes there', () => {
    const pick = vi.fn();
    show(<Ribbon segments={SEGMENTS} onPick={pick} />);
    const ribbon = screen.getByRole('group', { name: 'click URL' });
    for (const key of ['ArrowRight', 'ArrowRight', 'ArrowRight']) fireEvent.keyDown(ribbon, { key });
    expect(screen.getByRole('status').textContent).toContain('gives keyword.text');
    fireEvent.keyDown(ribbon, { key: 'Enter' });
    expect(pick).toHaveBeenCalledWith(SEGMENTS[2]);
    fireEvent.keyDown(ribbon, { key: 'Escape' });
    expect(screen.getByRole('status').textContent).toBe('');
  });

  it('says so where there is nothing to open', () => {
    show(<Ribbon segments={[]} />);
    expect(screen.getByText('no landing URL')).toBeTruthy();
  });
});
