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

/** A day of the last weeks that could be two, as shops write it: 05/11/2026. */
function twofold(): string {
  for (let back = 1; ; back++) {
    const day = new Date(Date.now() - back * 86_400_000);
    const [d, m] = [day.getUTCDate(), day.getUTCMonth() + 1];
    if (d <= 12 && d !== m) {
      return `${String(d).padStart(2, '0')}/${String(m).padStart(2, '0')}/${day.getUTCFullYear()}`;
    }
  }
}

test('what the columns of a sheet of orders are is said once, and seen before anything is taken', async ({ page }) => {
  await signIn(page);
  await page.getByRole('treegrid').waitFor();
  await page.goto('/ninefold/people');
  const form = page.getByRole('form', { name: 'let the pages of a site report' });
  await form.getByLabel('Let the pages of a site report').fill('The ticket desk');
  await form.getByLabel('hosts of its pages').fill('tickets.ninefold.example');
  await form.getByRole('button', { name: 'Add it' }).click();
  const day = twofold();
  const sheet = (order: string) =>
    `Till report\nReceipt;Paid on;Sum;Stand\n${order};${day} 10:05;12,50;Z\nK-2;${day} 11:05;open;Z\n` +
    Array.from({ length: 9 }, (_, n) => `K-1${n};${day} 12:05;7,00;Z\n`).join('');
  const putIn = async (order: string) => {
    const chooser = page.waitForEvent('filechooser');
    await page.getByRole('button', { name: 'put in a sheet of orders or views for The ticket desk' }).click();
    const file = { name: 'till.csv', mimeType: 'text/csv', buffer: Buffer.from(sheet(order)) };
    await (await chooser).setFiles(file);
  };
  await putIn('K-1');

  const dialog = page.getByRole('dialog', { name: 'What till.csv says' });
  const means = (heading: string) => dialog.getByRole('combobox', { name: `what “${heading}” means` });
  await expect(means('Receipt')).toHaveValue('order number');
  await expect(means('Paid on')).toHaveValue('time');
  await expect(means('Sum')).toHaveValue('value');
  await expect(dialog.getByRole('alert')).toContainText('could be two');
  await expect(dialog).toContainText('none that can be taken');
  await dialog.getByRole('combobox', { name: 'days with slashes of till' }).click();
  await page.getByRole('option', { name: 'days: 25/12/2026' }).click();
  await expect(dialog).toContainText('of its first rows: 10 orders; left out: 1 whose value is no number');
  await expect(dialog.getByRole('row', { name: /K-1 .*€12\.50/ })).toContainText('order K-1');
  await means('Stand').click();
  await page.getByRole('option', { name: 'time' }).click();
  await expect(dialog.getByRole('alert')).toContainText('Two columns are said to be the time.');
  await expect(dialog.getByRole('button', { name: 'Take it in' })).toBeDisabled();
  await means('Stand').click();
  await page.getByRole('option', { name: 'conversion' }).click();
  await accessible(page);
  await dialog.getByRole('button', { name: 'Take it in' }).click();
  const files = page.getByRole('list', { name: 'files of The ticket desk' });
  await expect(files).toContainText('10 of 11 rows; left out: 1 whose value is no number');

  await putIn('K-9');
  await expect(files).toContainText('1 of 11 rows');
  await expect(dialog).toBeHidden();
});
