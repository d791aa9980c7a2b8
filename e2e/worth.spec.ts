import { expect, test } from '@playwright/test';
import { accessible, people, signIn } from './world';

test('what clicks brought is asked for in words, and what is wrong is told by what it costs', async ({ page }) => {
  // people have clicked and bought for some days; whoever runs the tests can't wait that long
  expect(await people(9)).toBeGreaterThan(5000);
  await signIn(page);

  await test.step('results say what came, where from, and what stands behind it', async () => {
    await page.getByRole('treegrid').waitFor();
    await page.keyboard.press('6');
    const lines = page.getByRole('treegrid', { name: 'lines of the answer' });
    // until all has been read: a page that is open asks again in a minute
    await expect(async () => {
      await page.reload();
      await expect(lines.getByRole('row', { name: /Direct/ })).toBeVisible({ timeout: 4000 });
    }).toPass({ timeout: 90_000 });
    await expect(page.getByRole('group', { name: 'what is asked' })).toContainText('sessions by channel›campaign');
    await expect(page.getByRole('img', { name: /^sessions by day, the largest of channel as layers/ })).toBeVisible();
    await accessible(page);
    await lines.focus();
    await page.keyboard.press('ArrowRight');
    await expect(lines.locator('[aria-level="2"]').first()).toBeVisible();
    await page.keyboard.press('Enter');
    await expect(page.getByLabel(/^sessions of/).getByRole('button', { pressed: true })).toBeVisible();
    await expect(page.getByLabel('the visitor’s way')).toBeVisible();
    await accessible(page);
    await page.keyboard.press('Escape');
  });

  await test.step('the question is changed by its words, kept, and taken away as a sheet', async () => {
    await page.getByRole('button', { name: 'what is counted: sessions' }).click();
    await page
      .getByRole('menuitem', { name: /^revenue/ })
      .first()
      .click();
    const lines = page.getByRole('treegrid', { name: 'lines of the answer' });
    await page.getByRole('button', { name: 'told by, 1: channel' }).click();
    await page.getByRole('menuitem', { name: 'item bought', exact: true }).click();
    await expect(lines.getByRole('row', { name: /Cabin for two/ })).toContainText('€');
    await page.getByRole('button', { name: 'told by, 1: item bought' }).click();
    await page.getByRole('menuitem', { name: 'platform', exact: true }).click();
    await expect(lines.getByRole('row', { name: /Northquay Search/ })).toContainText('€');
    await lines.focus();
    await page.keyboard.press('o');
    await expect(page.getByRole('group', { name: 'what is asked' })).toContainText('only platform');
    await page.getByRole('button', { name: 'kept questions' }).click();
    await page.getByRole('menuitem', { name: 'keep this one …' }).click();
    await page.getByLabel('name').fill('Search, by campaign');
    await page.getByRole('button', { name: 'Keep it' }).click();
    await page.getByRole('button', { name: 'kept questions' }).click();
    await expect(page.getByRole('menuitem', { name: 'Search, by campaign', exact: true })).toBeVisible();
    await page.keyboard.press('Escape');
    const download = page.waitForEvent('download');
    await page.getByRole('button', { name: 'take away' }).click();
    await page.getByRole('menuitem', { name: 'all lines as CSV' }).click();
    expect((await download).suggestedFilename()).toMatch(/^results .*\.csv$/);
  });

  await test.step('conversions are counted otherwise, all that have come too', async () => {
    await page.getByRole('button', { name: 'how it is counted' }).click();
    await page.getByLabel('What hosts are called that people come from').fill('search.example seek organic');
    await page.getByRole('button', { name: 'Count like this' }).click();
    const organic = { by: ['source'], where: [{ by: 'medium', is: ['organic'] }] };
    await page.goto(`/velmar/results?q=${encodeURIComponent(JSON.stringify(organic))}`);
    await expect(async () => {
      await page.reload();
      await expect(page.getByRole('row', { name: /^seek/ })).toBeVisible({ timeout: 2000 });
    }).toPass({ timeout: 60_000 });
  });

  await test.step('clicks that were paid for are followed down, once platforms have told them', async () => {
    await page.getByRole('link', { name: 'what did not arrive' }).click();
    await expect(
      page.getByText('No click is known of these days').or(page.getByRole('grid', { name: 'clicks by platform' })),
    ).toBeVisible();
    await accessible(page);
    await page.getByRole('button', { name: 'how it is read: as it arrived' }).click();
    await page.getByRole('menuitem', { name: 'as it was meant, by plan and names of today' }).click();
    await expect(page.getByText(/are read otherwise than they arrived/)).toBeVisible({ timeout: 60_000 });
    await accessible(page);
    await page.getByRole('button', { name: 'revenue', exact: true }).click();
    await expect(
      page.getByText('Nothing is claimed of these days').or(page.getByRole('grid', { name: 'revenue by platform' })),
    ).toBeVisible();
    await accessible(page);
  });

  await test.step('the numbers of any report get names, and are taken away beside them', async () => {
    await page.keyboard.press('Control+k');
    await page.getByLabel('find', { exact: true }).fill('numbers');
    await page.keyboard.press('Enter');
    await page.getByLabel('rows of a report').fill('Anzeige;Klicks\n7100102;12\n7100102;9\n99;3\nSumme;24');
    await page.keyboard.press('Control+Enter');
    const rows = page.getByRole('grid', { name: 'rows of the report' });
    await expect(rows.getByRole('row', { name: /7100102/ }).first()).toContainText('Skerrow by boat A');
    await expect(rows.getByRole('row', { name: /^99/ })).toContainText('nothing that is known');
    await accessible(page);
    const named = page.waitForEvent('download');
    await page.getByRole('button', { name: 'Take away, all rows' }).click();
    expect((await named).suggestedFilename()).toBe('pasted rows named.csv');
    await rows.focus();
    await page.keyboard.press('Enter');
    await expect(page).toHaveURL(/\/trace\/\d+$/);
  });

  await test.step('a day of an account says what was sent and what arrived', async () => {
    await page.goto('/velmar/changes/ledger');
    await page.getByText('one day', { exact: true }).click();
    await page.getByRole('button', { name: /^after/ }).click();
    const day = page.getByRole('grid', { name: 'ads on that day' });
    await expect(day.getByRole('row').first()).toContainText('http');
    await day.focus();
    await page.keyboard.press('ArrowDown');
    await expect(day.getByRole('row').nth(1)).toHaveAttribute('aria-selected', 'true');
    await accessible(page);
  });

  await test.step('the day begins with what is wrong, the dearest first', async () => {
    await page.keyboard.press('0');
    const wrong = page.getByRole('grid', { name: 'what is wrong, the dearest first' });
    await expect(wrong.getByRole('row', { selected: true })).toBeVisible();
    await expect(page.getByLabel('one cause in full').getByRole('listitem').first()).toBeVisible();
    await accessible(page);
    const file = page.waitForEvent('download');
    await page.getByRole('link', { name: 'HTML' }).click();
    expect((await file).suggestedFilename()).toMatch(/^audit velmar .*\.html$/);
    await wrong.getByRole('row', { selected: true }).focus();
    await page.keyboard.press('ArrowDown');
    const what = (await page.getByLabel('one cause in full').getByRole('heading', { level: 2 }).textContent()) ?? '';
    await page.keyboard.press('a');
    await page.getByLabel('why it may stay as it is').fill('agreed with the platform until spring');
    await page.getByRole('button', { name: 'Let it be until then' }).click();
    await expect(wrong.getByRole('row', { name: 'accepted as they are' })).toBeVisible();
    await expect(page.getByLabel('one cause in full')).toContainText('agreed with the platform until spring');
    await page.getByRole('button', { name: 'No longer' }).click();
    await expect(wrong.getByRole('row', { name: 'accepted as they are' })).toBeHidden();
    expect(what).not.toBe('');
    const names = wrong.getByRole('row', { name: /names are off their pattern/ });
    await names.first().click();
    await expect(page.getByLabel('one cause in full').getByRole('link', { name: /Rename them/ })).toBeVisible();
    await wrong
      .getByRole('row')
      .filter({ hasText: /utm_|nothing of the plan/ })
      .first()
      .click();
    await page.keyboard.press('c');
    await expect(page.getByRole('dialog')).toContainText('in line with the plan');
  });
});
