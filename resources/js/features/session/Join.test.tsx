import { MantineProvider } from '@mantine/core';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, render, screen } from '@testing-library/react';
import { MemoryRouter } from 'react-router';
import { afterEach, expect, test, vi } from 'vitest';

const asked: string[] = [];
let answer: () => void = () => undefined;
vi.mock('../../api/client', () => ({
  api: { GET: (path: string) => Promise.resolve({ data: { user: null }, path: asked.push(path) }) },
  data: async (call: Promise<{ data: unknown }>) => (await call).data,
  lookAtLink: (token: string) => {
    asked.push(token);
    return new Promise((done) => {
      answer = () => done({ client: 'Harbour Tours', role: 'editor', email: 'jo@harbour.example', by: 'Berit' });
    });
  },
}));

afterEach(cleanup);

test('a browser that has no session yet gets one by one answer, so that its token is that session’s', async () => {
  const { default: Join } = await import('./Join');
  window.location.hash = '#a-link';
  render(
    <MantineProvider>
      <QueryClientProvider client={new QueryClient()}>
        <MemoryRouter>
          <Join />
        </MemoryRouter>
      </QueryClientProvider>
    </MantineProvider>,
  );
  await vi.waitFor(() => expect(asked).toEqual(['a-link']));
  answer();
  expect(await screen.findByText('Harbour Tours, as an editor.')).toBeTruthy();
  expect(asked).toEqual(['a-link', '/session']);
});
