import { expect, test, type Page } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { accessible, signIn } from './world';

const ADS = readFileSync('tests/data/harbour-ads.csv', 'utf8');

async function dropped(page: Page, name: string, content: string) {
  await page
    .locator('input[type=file]')
    .setInputFiles([{ name, mimeType: 'text/csv', buffer: Buffer.from(content, 'utf8') }]);
  await expect(page.getByRole('dialog')).toContainText(name);
}

test('an export becomes an account, is brought in line, and goes out as the sheet to upload', async ({ page }) => {
  await signIn(page);
  await page.getByRole('treegrid').waitFor();

  await test.step('what was dropped is understood, with reasons, and a person says the rest', async () => {
    await dropped(page, 'ads.csv', ADS);
    await page.getByLabel('Platform').first().click();
    await page.getByRole('option', { name: 'Northquay Search' }).click();
    await page.getByLabel('Its number').fill('NQ-9001');
    await page.getByLabel('Its name').fill('Westward Tours');
    await page.keyboard.press('Enter');
    await expect(page).toHaveURL(/accounts\/in\/\d+$/);
    const stands = page.getByRole('button', { name: /headings in row/ });
    await expect(stands).toContainText('headings in row 4');
    for (const row of ['3', '4']) {
      await stands.click();
      await page.getByLabel('Headings stand in row').fill(row);
      if (row === '3') await accessible(page);
      await page.keyboard.press('Enter');
      await expect(stands).toContainText(`headings in row ${row}`);
    }
    await expect(page.getByRole('combobox', { name: 'what “Final URL” means' })).toHaveValue('landing page');
    await expect(page.getByRole('combobox', { name: 'what “Quality” means' })).toHaveValue('nothing: leave it out');
    await expect(page.getByText('Some words have no meaning yet')).toBeVisible();
    await accessible(page);
    await page.getByRole('combobox', { name: 'what “Film” means' }).click();
    await page.getByRole('option', { name: 'video' }).click();
    await expect(page.getByText('Some words have no meaning yet')).toHaveCount(0);
  });

  await test.step('what it would make is seen before anything is stored', async () => {
    await page.getByRole('heading', { level: 1 }).click();
    await page.keyboard.press('r');
    const makes = page.getByLabel('what they make');
    await expect(makes).toContainText('5 rows, 1 of totals left out make 9 elements');
    await page.getByRole('button', { name: /numbers that a spreadsheet damaged/ }).click();
    await expect(makes).toContainText('ads 9 Ad ID “1.20346E+11” is what a spreadsheet makes of a long number');
    await accessible(page);
    await page.goto('/velmar/accounts');
    await expect(page.getByText('1 sheet of Westward Tours waits to be looked at')).toBeVisible();
    await page.getByRole('link', { name: 'Go on' }).click();
    await page.getByRole('button', { name: /^Bring 9 in/ }).waitFor();
    await page.keyboard.press('b');
  });

  await test.step('the account is proven like any other', async () => {
    await expect(page).toHaveURL(/accounts\/\d+$/);
    await expect(page.getByText('of 4 ads')).toBeVisible();
    await expect(page.getByTitle('Island hopping').first()).toBeVisible();
    await expect(page.getByText(/0 proven · 1 broken · 3 untracked/)).toBeVisible();
  });

  await test.step('a change writes only what the sheets have columns for, and goes out in their shape', async () => {
    await page.getByRole('button', { name: 'Bring in line' }).click();
    await page.getByRole('button', { name: 'Work it out' }).click();
    await page.getByRole('button', { name: /^Apply \d+ writes/ }).waitFor();
    await page.keyboard.press('a');
    await expect(page.getByLabel('the sheet')).toContainText('Westward Tours came as sheets');
    await accessible(page);
    const download = page.waitForEvent('download');
    await page.getByRole('link', { name: 'Take the sheet to upload' }).click();
    const lines = readFileSync(await (await download).path(), 'utf8').split('\r\n');
    expect(lines.slice(0, 2)).toEqual(['"Ads of Harbour Tours, 1 to 31 October"', '"Made on 2 November"']);
    expect(lines[3]).toMatch(/^"Ad ID",/);
    expect(lines[4]).toMatch(/^120345678,.*utm_source=northquay/);
    await page.getByRole('button', { name: 'The platform has taken all of it' }).click();
    await expect(page.getByTestId('status')).toHaveText('applied and read back', { timeout: 30_000 });
  });

  await test.step('the same export again is known by its map, and what has changed is told', async () => {
    await page.goto('/velmar/accounts');
    await dropped(page, 'ads.csv', ADS);
    await page.getByLabel('Platform').first().click();
    await page.getByRole('option', { name: 'Northquay Search' }).click();
    await page.getByRole('combobox', { name: 'Account' }).click();
    await page.getByRole('option', { name: /Westward Tours/ }).click();
    await page.getByRole('button', { name: 'Look at what they are' }).click();
    await expect(page.getByText('kept as “Westward Tours: export”')).toBeVisible();
    await page.getByRole('heading', { level: 1 }).click();
    await page.keyboard.press('r');
    await expect(page.getByLabel('what they make')).toContainText('changed4');
    await page.getByRole('button', { name: 'Give these sheets up' }).click();
    await expect(page).toHaveURL(/accounts$/);
  });
});
