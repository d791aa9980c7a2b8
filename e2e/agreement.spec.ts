import { expect, test } from '@playwright/test';
import { accessible, LIVE_ADS, signIn } from './world';

test('from the agreement to an arrival', async ({ page, context }) => {
  await test.step('a wrong password is said to be wrong', async () => {
    await signIn(page, 'mara@saltmarsh.example', 'no');
    await expect(page.getByRole('alert')).toContainText('password is wrong');
    await accessible(page);
    await page.getByLabel('Password').first().fill('tide-table');
    await page.getByRole('button', { name: 'Sign in' }).click();
    await page.getByRole('treegrid').waitFor();
    await page.goto('/');
    await expect(page).toHaveURL(/\/audit$/); // where the day begins
    await page.goto('/velmar/audit');
    await expect(page.getByRole('link', { name: /agree on/i })).toBeVisible();
  });

  await test.step('the plan is written, with what real ads would send beside it', async () => {
    await page.keyboard.press('1');
    await page.getByRole('button', { name: 'Begin with the five UTM keys' }).click();
    await page.getByLabel('what utm_content says', { exact: true }).fill('<ad.i');
    await page.keyboard.press('Enter');
    await expect(page.getByLabel('what utm_content says', { exact: true })).toHaveValue('‹ad.id›');
    await expect(page.getByRole('row', { name: /utm_campaign/ })).toContainText('skerrow_foot_car');
    await expect(page.getByRole('row', { name: /utm_term/ })).toContainText('can’t be given');
    await accessible(page);
    await page.getByRole('button', { name: 'Save the plan' }).click();
    await expect(page.getByText('revision 1', { exact: true })).toBeVisible();
  });

  await test.step('an ad is proven broken, and why', async () => {
    await page.keyboard.press('2');
    await expect(page.getByText(/\d+ broken/).first()).toContainText('599');
    const table = page.getByRole('treegrid');
    await table.focus();
    // rows that come anew while a key is pressed swallow it
    await expect(async () => {
      await page.keyboard.press('Home');
      await page.keyboard.press('ArrowRight');
      await expect(page.getByTitle('Skerrow – Foot passengers').first()).toBeVisible({ timeout: 5000 });
    }).toPass();
    await page.keyboard.press('Home');
    await page.keyboard.press('ArrowDown');
    await page.keyboard.press('ArrowRight');
    await expect(page.getByTitle('Skerrow by boat A').first()).toBeVisible();
    await page.keyboard.press('ArrowDown');
    await expect(page.getByLabel('the row in full')).toContainText(
      'utm_source arrives as “Northquay”; the plan says “northquay”.',
    );
    await accessible(page);
    await page.keyboard.press('Enter');
    await expect(page.getByTestId('verdict')).toContainText('broken');
    await expect(page.locator('tr[data-verdict=wrong]').first()).toContainText('plan: northquay');
  });

  await test.step('the click answers while it is typed, a text can be tried', async () => {
    await page.getByLabel('try another template for Campaign').click();
    await page.getByLabel('template of Campaign').fill('{landing}?utm_source=northquay&utm_term={term}');
    await page.keyboard.press('Enter');
    await page.getByRole('group', { name: 'the click' }).getByLabel('keyword').fill('boats & rope');
    await expect(page.getByTestId('ribbon')).toContainText('utm_term=boats%20%26%20rope');
    await expect(page.locator('tr', { hasText: 'utm_term' }).first()).toContainText('boats & rope');
    await expect(page.getByRole('list', { name: 'what each level says' })).toContainText('hidden by the campaign');
    await accessible(page);
    await page.getByRole('button', { name: 'Back to what is live' }).click();
    await expect(page.getByTestId('ribbon')).toContainText('utm_source=Northquay');
  });

  await test.step('the change is worked out, looked at, and applied', async () => {
    await page.keyboard.press('Escape');
    await page.goto('/velmar/accounts');
    await page.getByRole('button', { name: 'Bring in line' }).click();
    await page.getByLabel('Why').fill('One agreement for all island routes.');
    await page.getByRole('button', { name: 'Work it out' }).click();
    await expect(page.getByRole('button', { name: /^Try it on/ })).toBeVisible();
    await expect(page.getByText('742 proven', { exact: true })).toBeVisible();
    await expect(page.getByLabel('after, click URL').first()).toContainText('utm_campaign=skerrow_foot_car');
    await accessible(page);
    await page.keyboard.press('a');
    await expect(page.getByTestId('status')).toHaveText('tried', { timeout: 60_000 });
    await expect(page.getByTestId('test-click').first()).toContainText('everything arrived');
    await accessible(page);
    await page.keyboard.press('a');
    await expect(page.getByTestId('status')).toHaveText('applied and read back', { timeout: 60_000 });
    await expect(page.getByText(/(\d+) of \1 written/)).toBeVisible();
    await expect(page.getByTestId('test-click').nth(1)).toContainText('the page answered');
  });

  await test.step('a live ad is clicked: its arrival shows within three seconds', async () => {
    const arrivals = await context.newPage();
    await arrivals.goto('/velmar/arrivals');
    await expect(arrivals.getByText('No click has arrived yet')).toBeVisible();
    await page.goto(`${LIVE_ADS}?q=Skerrow`);
    await page.locator('a[data-ad]').first().click();
    await expect(page).toHaveURL(/velmar\.localhost.*utm_source=northquay/);
    const row = arrivals.locator('[data-arrival]').first();
    await expect(row).toBeVisible({ timeout: 3_000 });
    await expect(row).toContainText('Skerrow by boat A');
    await expect(row).toContainText('skerrow_foot_car');
    await expect(row).toContainText('ferry to skerrow');
    const clickId = new URL(page.url()).searchParams.get('nqcid');
    expect(clickId).toMatch(/^nq/);
    await expect(row).toContainText(clickId!);
    await expect(arrivals.getByLabel('the arrival in full')).toContainText('found by the click ID');
    await expect(arrivals.getByLabel('arrivals, newest first')).toContainText('northquay');
    await accessible(arrivals);
    await row.focus();
    await arrivals.keyboard.press('Enter');
    await expect(arrivals).toHaveURL(/trace\/\d+$/);
  });
});
