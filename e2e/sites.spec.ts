import { once } from 'node:events';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { expect, test } from '@playwright/test';
import { accessible, signIn } from './world';

test('a page with our script reports its views by the browser’s own beacon, and they are seen at once', async ({
  page,
  context,
}) => {
  await signIn(page);
  await page.getByRole('treegrid').waitFor();
  await page.goto('/ninefold/people');
  const form = page.getByRole('form', { name: 'let the pages of a site report' });
  await form.getByLabel('Let the pages of a site report').fill('The museum shop');
  await form.getByLabel('hosts of its pages').fill('https://clocks.localhost');
  await form.getByRole('button', { name: 'Add it' }).click();
  await expect(form.getByText('is no host name')).toBeVisible();
  await form.getByLabel('hosts of its pages').fill('clocks.localhost');
  await form.getByRole('button', { name: 'Add it' }).click();
  const script = page.getByText('<script async src=');
  await expect(script).toBeVisible();
  await accessible(page);
  const tag = (await script.textContent())!;

  const server = createServer((_, answer) => {
    answer.setHeader('Content-Type', 'text/html').end(`<!doctype html><head>${tag}</head><h1>Clocks</h1>`);
  }).listen(0, '127.0.0.1');
  await once(server, 'listening');
  const pages = `http://clocks.localhost:${(server.address() as AddressInfo).port}`;
  const shop = await context.newPage();
  const beacons: string[] = [];
  shop.on('request', (r) => r.url().includes('/in/') && beacons.push(`${r.method()} ${r.resourceType()}`));
  await shop.goto(`${pages}/?utm_source=guildloft&utm_medium=paid_social&utm_campaign=clocks`);
  await expect.poll(() => beacons.length).toBe(1);
  await shop.evaluate(() => history.pushState({}, '', '/pendulums'));
  await expect.poll(() => beacons.length).toBe(2);
  expect(beacons).toEqual(['POST ping', 'POST ping']); // sendBeacon, W3C Beacon
  expect(await shop.evaluate(() => document.cookie)).toBe('');
  await shop.close();
  server.close();

  await page.goto('/ninefold/arrivals');
  const arrivals = page.getByRole('grid', { name: 'arrivals, newest first' });
  await expect(arrivals.getByRole('row', { name: /Paid social guildloft paid_social clocks/ })).toBeVisible({
    timeout: 3000,
  });
  await expect(arrivals.getByRole('row', { name: /Direct/ })).toBeVisible();
  const way = page.getByRole('region', { name: 'the visitor’s way' });
  await expect(way).toContainText('1 session, 2 views');
  await expect(way.getByRole('listitem')).toContainText('Paid social');
  await expect(way.getByRole('listitem')).toContainText('/pendulums');
  await accessible(page);

  await page.goto('/ninefold/people');
  await page.getByRole('button', { name: 'let The museum shop report no more' }).click();
  await expect(page.getByText('It does not report any more.')).toBeVisible();
});
