import { expect, test, type Page } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { accessible, order, signIn } from './world';

const port = process.env.STANDINS_PORT ?? '9750';

async function openAccount(page: Page, client: string, name: RegExp): Promise<void> {
  await page.goto(`/${client}/accounts`);
  await page.getByRole('treegrid').waitFor();
  await page.getByRole('button', { name: 'account', exact: true }).click();
  await page.getByRole('menuitem', { name }).click();
  await expect(page.getByRole('menu')).toHaveCount(0); // it hands the focus back when it closes
  await expect(page.getByText(/broken ·/).first()).toBeVisible();
  await expect(page.getByRole('treegrid').getByRole('row').nth(1)).toBeVisible();
  await page.getByRole('treegrid').focus();
}

/** Opens every sample of the change that is shown, then says yes. */
async function approve(page: Page) {
  const samples = await page.getByRole('button', { expanded: false }).filter({ hasText: 'open' }).count();
  expect(samples).toBeGreaterThan(0);
  for (let i = 0; i < samples; i++) {
    await page.keyboard.press('o');
    await expect(page.getByLabel('after, click URL')).toHaveCount(i + 1);
  }
  await page.keyboard.press('y');
  await expect(page.getByText('by Mara Tidewell').first()).toBeVisible();
}

test('texts are edited in bulk, looked at, approved by another, tried, applied and taken back, by keyboard', async ({
  page,
  browser,
}) => {
  await signIn(page, 'ivo@saltmarsh.example');
  await page.getByRole('treegrid').waitFor();
  await page.goto('/ninefold/plan');
  await page.getByRole('button', { name: 'Begin with the five UTM keys' }).click();
  await expect(page.getByLabel('key 1')).toBeVisible();
  await page.getByRole('button', { name: 'Save the plan' }).click();
  await expect(page.getByText('revision 1', { exact: true })).toBeVisible();

  await openAccount(page, 'ninefold', /Guildloft/);
  await page.keyboard.press(' ');
  await page.keyboard.press('Shift+ArrowDown');
  await expect(page.getByText('2 chosen')).toBeVisible();
  await page.keyboard.press('e');
  await page.getByLabel('Find', { exact: true }).fill('http://ninefold');
  await page.getByLabel('Replace by').fill('http://www.ninefold');
  await expect(page.getByRole('dialog')).toContainText(/\d+ of \d+ texts would change/);
  await accessible(page);
  await page.getByText('set a parameter').click();
  await page.getByLabel('Key').fill('season');
  await page.getByLabel(/^Value/).fill('winter');
  await expect(page.getByRole('checkbox', { name: 'template' })).toHaveCount(0);
  await page.getByRole('checkbox', { name: 'suffix' }).uncheck();
  await expect(page.getByRole('dialog').getByText('season=winter').first()).toBeVisible();
  await page.getByLabel('Why').fill('For the winter campaign.');
  await page.getByRole('button', { name: 'Draft the change' }).click();
  await expect(page.getByRole('heading', { name: 'Set season to winter' })).toBeVisible();
  await expect(page.getByText('wants another person’s yes')).toBeVisible();
  await expect(page.getByRole('button', { name: /Apply|Try it/ })).toHaveCount(0);
  await accessible(page);

  const other = await (await browser.newContext()).newPage();
  await signIn(other);
  await other.getByRole('treegrid').waitFor();
  await other.goto(page.url());
  await expect(other.getByRole('button', { name: /^Approve/ })).toBeDisabled();
  await other.keyboard.press('n');
  await expect(other.getByLabel('What is wrong with it')).toHaveValue('');
  await other.getByLabel('What is wrong with it').fill('Is it not spring by then?');
  await accessible(other);
  await other.getByRole('button', { name: 'Send it back' }).last().click();
  await expect(other.getByTestId('status')).toHaveText('dropped');
  await page.reload();
  await expect(page.getByText('Mara Tidewell sent it back: Is it not spring by then?')).toBeVisible();
  await page.keyboard.press('r');
  await expect(page.getByTestId('status')).toHaveText('worked out', { timeout: 30_000 });
  await other.reload();
  await expect(other.getByRole('button', { name: /^Approve/ })).toBeDisabled();
  await approve(other);

  await page.reload();
  await page.getByRole('button', { name: /Apply|Try it/ }).waitFor();
  await page.keyboard.press('a');
  await expect(page.getByTestId('status')).toHaveText(/^(tried|applied.*)$/, { timeout: 60_000 });
  if ((await page.getByTestId('status').textContent()) === 'tried') await page.keyboard.press('a');
  await expect(page.getByTestId('status')).toHaveText(/^applied/, { timeout: 60_000 });
  await page.getByRole('button', { name: 'Take it back' }).waitFor();
  await page.keyboard.press('x');
  await expect(page.getByRole('heading', { name: /^Take back/ })).toBeVisible();
  await expect(page.getByTestId('status')).toHaveText('worked out', { timeout: 30_000 });
  await expect(page.getByText('wants another person’s yes')).toBeVisible();
  await other.goto(page.url());
  await expect(other.getByRole('button', { name: /^Approve/ })).toBeDisabled();
  await approve(other);
  await page.reload();
  await page.getByRole('button', { name: /Apply|Try it/ }).waitFor();
  await page.keyboard.press('a');
  await expect(page.getByTestId('status')).toHaveText(/^(tried|applied.*)$/, { timeout: 60_000 });
  if ((await page.getByTestId('status').textContent()) === 'tried') await page.keyboard.press('a');
  await expect(page.getByTestId('status')).toHaveText(/^applied/, { timeout: 60_000 });
  await page.keyboard.press('l');
  await expect(page.getByText('For the winter campaign.').first()).toBeVisible();
  await expect(page.getByText('season=winter').first()).toBeVisible();
  await accessible(page);
});

test('a rollout goes on when its page is closed, and is held and ended from another one', async ({ page, context }) => {
  await signIn(page);
  await page.getByRole('treegrid').waitFor();
  await openAccount(page, 'velmar', /Hearthring/);
  await page.getByRole('button', { name: 'Bring in line' }).click();
  await page.getByRole('button', { name: 'Work it out' }).click();
  await page.getByRole('button', { name: /^Try it|^Apply/ }).waitFor({ timeout: 60_000 });
  await order('hearthring', 'slow', 40, '400');
  await page.keyboard.press('a');
  await expect(page.getByTestId('status')).toHaveText(/being|tried/);
  const address = page.url();
  await page.close();

  const again = await context.newPage();
  await again.goto(address);
  await expect(again.getByTestId('status')).toHaveText('tried', { timeout: 90_000 });
  await again.keyboard.press('a');
  await again.getByRole('button', { name: /Hold it/ }).waitFor();
  await expect(again.getByRole('banner').getByText(/applying \d+ of \d+/)).toBeVisible();
  await again.keyboard.press('h');
  await expect(again.getByTestId('status')).toHaveText(/^(held|applied.*)$/, { timeout: 60_000 });
  if ((await again.getByTestId('status').textContent()) === 'held') {
    await accessible(again);
    await again.keyboard.press('a');
    await expect(again.getByTestId('status')).toHaveText(/^applied/, { timeout: 90_000 });
  }
});

test('a portal that takes sheets: out, to its desk, and the result back in', async ({ page, request }) => {
  await signIn(page);
  await page.getByRole('treegrid').waitFor();
  await openAccount(page, 'velmar', /Oldgate/);
  await page.getByRole('button', { name: 'Bring in line' }).click();
  await page.getByRole('button', { name: 'Work it out' }).click();
  await page.getByRole('button', { name: /^Try it|^Apply/ }).waitFor({ timeout: 60_000 });
  for (const status of ['tried', 'applied and read back']) {
    await page.keyboard.press('a');
    await expect(page.getByTestId('status')).toHaveText('out as a sheet', { timeout: 30_000 });
    await page.getByRole('button', { name: 'Other columns …' }).click();
    await expect(page.getByRole('list', { name: 'maps that are kept' })).toContainText('Advert no., Title, Link');
    await page.getByLabel('The headings of their sheet').fill('Advert number\tTitle\tLink');
    await expect(page.getByRole('combobox', { name: 'what “Link” means' })).toHaveValue('landing page');
    await accessible(page);
    await page.keyboard.press('Escape');
    const download = page.waitForEvent('download');
    await page.getByRole('link', { name: 'Take it as CSV' }).click();
    const sheet = readFileSync((await (await download).path())!, 'utf8');
    expect(sheet.split('\r\n')[0]).toBe('"Advert no.",Link');
    const desk = await request.post(`http://127.0.0.1:${port}/desk`, {
      headers: { Host: `oldgate.localhost:${port}`, 'Content-Type': 'text/csv' },
      data: sheet,
    });
    await accessible(page);
    await page
      .locator('input[type=file]')
      .setInputFiles({ name: 'outcome.csv', mimeType: 'text/csv', buffer: Buffer.from(await desk.body()) });
    await expect(page.getByTestId('status')).toHaveText(status, { timeout: 60_000 });
  }
});

test('what an account switches for all of its ads is seen, switched, told, and taken back', async ({ page }) => {
  const tags = page.getByRole('radiogroup', { name: 'automatic tags' });
  const applied = async () => {
    await expect(page.getByTestId('status')).toHaveText('worked out', { timeout: 60_000 });
    await page.keyboard.press('a');
    await expect(page.getByTestId('status')).toHaveText('applied and read back', { timeout: 60_000 });
  };
  await signIn(page);
  await page.getByRole('treegrid').waitFor();
  await openAccount(page, 'velmar', /Pellworth/);
  await expect(tags.getByRole('radio', { name: 'fill' })).toBeChecked();
  await expect(page.getByRole('radiogroup', { name: 'click ID' }).getByRole('radio', { name: 'off' })).toBeChecked();
  await accessible(page);

  await tags.getByText('off', { exact: true }).click();
  await expect(page.getByRole('heading', { name: /^Turns the automatic tags off for all 144 ads/ })).toBeVisible();
  await expect(page.getByText(/touches every ad and can’t be tried on one/)).toBeVisible();
  await expect(page.getByRole('cell', { name: 'automatic tags' })).toBeVisible();
  await applied();
  const change = page.url();
  await openAccount(page, 'velmar', /Pellworth/);
  await expect(tags.getByRole('radio', { name: 'off' })).toBeChecked();

  await page.goto(change);
  await page.getByTestId('status').waitFor();
  await page.keyboard.press('x');
  await expect(page.getByRole('heading', { name: /^Take back: Turns the automatic tags off/ })).toBeVisible();
  await applied();
  await openAccount(page, 'velmar', /Pellworth/);
  await expect(tags.getByRole('radio', { name: 'fill' })).toBeChecked();
});

test('every account out of line is drafted at once, dropped, begun again, and gone on with by one key', async ({
  page,
}) => {
  await signIn(page);
  await page.getByRole('treegrid').waitFor();
  await openAccount(page, 'velmar', /Mossfeed/);
  await page.keyboard.press('c');
  await page.getByRole('combobox', { name: 'About' }).click();
  await page.getByRole('option', { name: /every account of Velmar Ferries/ }).click();
  await page.getByRole('button', { name: 'Work it out' }).click();
  const together = page.getByRole('region', { name: 'drafted together' });
  await expect(together.getByRole('link')).not.toHaveCount(0);
  const many = await together.getByRole('link').count();
  expect(many).toBeGreaterThan(2);
  await expect(together.getByText(/^(worked out|nothing to write)$/)).toHaveCount(many, { timeout: 90_000 });
  await accessible(page);

  await together.getByRole('link', { name: /Travel Stories/ }).click();
  await expect(page.getByText(/· Velmar Travel Stories/)).toBeVisible();
  await page.keyboard.press('d');
  await expect(page.getByTestId('status')).toHaveText('dropped');
  const changes = page.getByRole('navigation', { name: 'changes, newest first' });
  await expect(changes.getByText('dropped', { exact: true })).toHaveCount(0);
  await changes.getByRole('button', { name: /^\d+ dropped$/ }).click();
  await expect(changes.getByRole('link', { name: /Velmar Travel Stories/ }).first()).toContainText('dropped');
  await accessible(page);
  await changes.getByRole('button', { name: /not dropped/ }).click();
  await changes.getByText('over', { exact: true }).click();
  await expect(changes.getByText('worked out', { exact: true })).toHaveCount(0);
  await changes.getByText('all', { exact: true }).click();
  await page.keyboard.press('r');
  await expect(page.getByTestId('status')).toHaveText('worked out', { timeout: 60_000 });

  await page.keyboard.press('A');
  await expect(together.getByText('worked out', { exact: true })).toHaveCount(0);
  await expect(page.getByTestId('status')).toHaveText(/^(tried|applied.*)$/, { timeout: 120_000 });
});

test('a text is written with the platform’s tokens offered, the ad clicked for real, and its past asked for', async ({
  page,
}) => {
  await signIn(page);
  await page.getByRole('treegrid').waitFor();
  await page.goto('/velmar/accounts');
  await page.getByLabel('filter by name or number').fill('Lunnet with your car');
  await page
    .getByTitle(/^Lunnet with your car/)
    .first()
    .waitFor();
  await page.keyboard.press('Enter');
  await page.keyboard.press('Enter');
  await page.getByTestId('ribbon').waitFor();
  await page.getByLabel('try a suffix for Ad', { exact: true }).click();
  await page.getByLabel('suffix of Ad', { exact: true }).pressSequentially('x={dev');
  await expect(page.getByRole('option', { name: /\{device\}/ })).toBeVisible();
  await accessible(page);
  await page.keyboard.press('Tab');
  await expect(page.getByLabel('suffix of Ad', { exact: true })).toHaveValue('x={device}');
  await expect(page.getByTestId('ribbon')).toContainText('x=m');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Back to what is live' }).click();
  await page.getByRole('heading', { name: 'Clicked for real' }).click();
  await page.keyboard.press('g');
  await expect(page.getByTestId('test-click')).toContainText('the page answered');
  await page.getByLabel('the moment').fill('2020-01-01T08:00');
  await expect(page.getByText('Nothing is known of it that day.')).toBeVisible();
});
