import { readFileSync } from 'node:fs';
import jsqr from 'jsqr';
import { PNG } from 'pngjs';
import { expect, test } from '@playwright/test';
import { accessible, signIn } from './world';

test('links are put together on the bench, made, opened by their short address and code, and lead elsewhere', async ({
  page,
  request,
}) => {
  await signIn(page);
  await page.getByRole('treegrid').waitFor();
  await page.keyboard.press('8');
  const bench = page.getByRole('region', { name: 'links in the making' });
  const cell = (row: number, column: string) => bench.locator(`input[aria-label="${column} of row ${row}"]`);
  await cell(1, 'title').fill('Harbour letter');
  await cell(1, 'landing').fill('https://velmar.example/tickets?lang=en#times');
  await cell(1, 'utm_source').fill('harbour-post | pier-post');
  await cell(1, 'utm_medium').fill('email');
  await cell(1, 'utm_campaign').fill('Frost');
  await expect(bench.getByText('?lang=en')).toHaveCount(2);
  await expect(bench.getByText('&utm_source=pier-post')).toBeVisible();
  await bench.getByRole('button', { name: 'campaign: write frost' }).click();
  await expect(cell(1, 'utm_campaign')).toHaveValue('frost');
  await expect(bench.getByText('“Frost” has capital letters')).toHaveCount(0);
  await accessible(page);
  await cell(1, 'utm_campaign').press('Control+Enter');
  await expect(bench.getByText('2 links made.')).toBeVisible();

  // what is there already is said, and what is wrong keeps a link from being made
  await cell(1, 'landing').evaluate((field) => {
    const data = new DataTransfer();
    data.setData(
      'text/plain',
      'https://velmar.example/tickets?lang=en#times\tpier-post\temail\tfrost\njavascript:alert(1)\tx\ty\tz',
    );
    field.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));
  });
  await expect(bench.getByText('That link is there already')).toBeVisible();
  await expect(bench.getByText('This is no address of a web page')).toBeVisible();
  await expect(bench.getByRole('button', { name: 'Make 1 link' })).toBeVisible();
  await bench.getByRole('button', { name: 'look at it' }).click();

  const sight = page.getByRole('complementary', { name: 'the link Harbour letter' });
  const address = (await sight.getByRole('img', { name: /code that leads to/ }).getAttribute('alt'))!
    .split(' ')
    .at(-1)!;
  const to = 'https://velmar.example/tickets?lang=en&utm_source=pier-post&utm_medium=email&utm_campaign=frost#times';
  const answer = await request.get(address, { maxRedirects: 0 });
  expect([answer.status(), answer.headers()['location']]).toEqual([302, to]);
  expect((await request.head(address, { maxRedirects: 0 })).status()).toBe(302);
  expect((await request.get(`${address}x`, { maxRedirects: 0 })).status()).toBe(404);

  // ISO/IEC 18004, read back by jsqr
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    sight.getByRole('button', { name: 'code as PNG' }).click(),
  ]);
  const picture = PNG.sync.read(readFileSync(await file.path()));
  expect(jsqr(new Uint8ClampedArray(picture.data), picture.width, picture.height)?.data).toBe(address);
  const isWhite = (x: number, y: number) => picture.data[4 * (y * picture.width + x)] === 255;
  const dark = [...Array(picture.width).keys()].find((x) => !isWhite(x, Math.floor(picture.height / 2)))!;
  const module = [...Array(picture.width).keys()].find((x) => !isWhite(x, x))! / 4;
  expect(dark / module).toBeGreaterThanOrEqual(4); // the quiet zone

  await sight.getByRole('button', { name: 'Let it lead elsewhere' }).click();
  await sight.getByLabel('landing page').fill('https://velmar.example/winter');
  await sight.getByLabel('why').fill('the season is over');
  await accessible(page);
  await sight.getByRole('button', { name: 'Lead there from now on' }).click();
  await expect(sight.getByText('the season is over')).toBeVisible();
  expect((await request.get(address, { maxRedirects: 0 })).headers()['location']).toContain(
    '/winter?utm_source=pier-post',
  );
  await sight.getByRole('button', { name: 'Let go of it' }).click();
  await expect(sight).toBeHidden();
  expect((await request.get(address, { maxRedirects: 0 })).status()).toBe(410);
});
