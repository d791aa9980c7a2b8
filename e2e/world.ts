import AxeBuilder from '@axe-core/playwright';
import { expect, request, type Page } from '@playwright/test';

const port = process.env.STANDINS_PORT ?? '9750';

export const liveAds = (host: string) => `http://${host}.localhost:${port}/ads`;

export const LIVE_ADS = liveAds('northquay');

export const MARA = 'mara@saltmarsh.example';

/** Orders trouble from the stand-ins. */
export async function order(
  site: string,
  kind: 'down' | 'busy' | 'slow' | 'nonsense' | 'moved' | 'reject',
  times: number,
  argument = '',
): Promise<void> {
  const http = await request.newContext({ extraHTTPHeaders: { Host: `control.localhost:${port}` } });
  const answer = await http.post(`http://127.0.0.1:${port}/faults`, { data: { site, kind, times, argument } });
  expect(answer.ok()).toBe(true);
  await http.dispose();
}

/** Signs in, and is where somebody asked to go. */
export async function signIn(
  page: Page,
  email = MARA,
  password = 'tide-table',
  at = '/velmar/accounts',
): Promise<void> {
  await page.goto(at);
  await page.getByLabel('E-mail address').fill(email);
  await page.getByLabel('Password').first().fill(password);
  await page.getByRole('button', { name: 'Sign in' }).click();
}

/** Nothing that axe knows of WCAG 2.2 AA is wrong on the page. */
export async function accessible(page: Page): Promise<void> {
  await page.waitForTimeout(400); // transitions have their own colours
  const { violations } = await new AxeBuilder({ page })
    .withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'])
    .analyze();
  expect(violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.html.slice(0, 160)).join(' | ')}`)).toEqual([]);
}

/** So many days in which people have clicked and bought; nothing more happens afterwards. */
export async function people(days: number): Promise<number> {
  const http = await request.newContext({ extraHTTPHeaders: { Host: `control.localhost:${port}` } });
  const answer = await http.post(`http://127.0.0.1:${port}/people`, { data: { days, seed: 3 }, timeout: 60_000 });
  return ((await answer.json()) as { arrived: number }).arrived;
}
