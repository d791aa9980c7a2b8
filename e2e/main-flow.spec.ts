import { expect, test } from '@playwright/test';
import { accessible, LIVE_ADS, order, signIn } from './world';

test('the live click is the very URL that the trace shows', async ({ page }) => {
  await signIn(page);
  await page.getByRole('treegrid').waitFor();
  for (const words of ['Tarnsay by boat A', 'Orrin return €19 A', 'The night boat A', 'Lunnet with your car B']) {
    await page.goto(`${LIVE_ADS}?q=${encodeURIComponent(words)}`);
    const link = page.locator('a[data-ad]').first();
    const ad = (await link.getAttribute('data-ad'))!;
    const clicked = page.waitForRequest((r) => r.isNavigationRequest() && !r.url().includes('/click?'));
    await link.click();
    const sent = (await clicked).url();

    await page.goto('/velmar/accounts');
    await page.getByRole('treegrid').waitFor();
    await page.keyboard.press('Control+k');
    await page.getByRole('textbox', { name: 'find' }).fill(ad);
    await page.getByRole('option', { name: new RegExp(ad) }).waitFor();
    await page.keyboard.press('Enter');
    await page
      .getByRole('group', { name: 'the click' })
      .getByLabel('click ID')
      .fill(/nqcid(?:=|%3D)(\w+)/.exec(sent)![1]!);
    await page.getByRole('group', { name: 'the click' }).getByText('desktop').click();
    await expect(page.getByTestId('ribbon')).toHaveText(sent);
  }
});

test('a platform in trouble: a clear message, and nothing lost', async ({ page }) => {
  await signIn(page);
  await page.getByRole('treegrid').waitFor();
  await order('northquay', 'down', 3);
  await page.getByRole('button', { name: 'Import from Northquay Search' }).click();
  await expect(page.getByRole('alert')).toContainText('Northquay Search is down (it answered 503). Nothing was lost');
  await expect(page.getByTitle('Skerrow Foot & Car').first()).toBeVisible();
  await page.getByRole('button', { name: 'Import from Northquay Search' }).click();
  await expect(page.getByRole('alert')).toBeHidden();
});

test('an ended session asks to sign in again, over what was typed', async ({ page, context }) => {
  await signIn(page);
  await page.getByRole('treegrid').waitFor();
  await page.goto('/velmar/plan');
  await page.getByLabel('what utm_medium says', { exact: true }).fill('ppc');
  const other = await context.newPage();
  await other.goto('/velmar/plan');
  await other.getByRole('button', { name: /signed in as/ }).click();
  await other.getByRole('menuitem', { name: 'Sign out' }).click();
  await other.getByRole('button', { name: 'Sign in' }).waitFor();
  // the look at running work may find out first, and then the question is there already
  await page
    .getByRole('button', { name: 'Save the plan' })
    .click({ timeout: 3_000 })
    .catch(() => undefined);
  await expect(page.getByRole('dialog')).toContainText('Your session has ended');
  await page.getByRole('dialog').getByLabel('E-mail address').fill('mara@saltmarsh.example');
  await page.getByRole('dialog').getByLabel('Password').first().fill('tide-table');
  await page.getByRole('dialog').getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByRole('dialog')).toBeHidden();
  await expect(page.getByLabel('what utm_medium says', { exact: true })).toHaveValue('ppc');
});

test('another client stays unseen', async ({ page }) => {
  await signIn(page, 'runa@ninefold.example', 'tide-table', '/ninefold/accounts');
  await expect(page.getByRole('treegrid', { name: /Ninefold/ })).toBeVisible();
  await expect(page.getByRole('button', { name: /Import from/ })).toHaveCount(0);
  await page.goto('/velmar/accounts');
  await expect(page.getByText('That client is not yours to see')).toBeVisible();
  await accessible(page);
});

test('an address at which there is nothing says so', async ({ page }) => {
  await signIn(page, undefined, undefined, '/velmar/no-such-page/at-all');
  await expect(page.getByRole('heading', { name: 'There is no page at this address.' })).toBeVisible();
  await accessible(page);
  await page.getByRole('link', { name: 'Audit, where the day begins' }).click();
  await expect(page).toHaveURL(/\/velmar\/audit$/);
});

test('dark colours and a small window keep everything in reach', async ({ page }) => {
  await page.setViewportSize({ width: 1024, height: 768 });
  await signIn(page);
  await page.getByRole('treegrid').waitFor();
  await page.getByRole('button', { name: 'dark colours' }).click();
  await accessible(page);
  for (const section of ['plan', 'trace', 'changes', 'arrivals', 'results', 'feeds', 'links', 'platforms']) {
    await page.goto(`/velmar/${section}`);
    await page.getByRole('navigation', { name: 'sections in the order of work' }).waitFor();
    await page.waitForLoadState('networkidle').catch(() => undefined);
    await accessible(page);
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(1024);
  }
});
