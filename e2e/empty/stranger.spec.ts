import { expect, test } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { accessible } from '../world';

const LETTERS = `Letter number;Letter;Opened;Link
7031;Deck seats;120;https://harbour.example/hop
7032;Sunset deck;88;https://harbour.example/sunset?utm_source=letter
`;

test('a stranger begins with nothing and takes away the sheet to upload', async ({ page, context }) => {
  await test.step('the first owner comes in by a link that is good once', async () => {
    await page.goto(process.env.FIRST_OWNER!);
    await page.getByLabel('Your name').fill('Berit Sund');
    await page.getByLabel('E-mail address').fill('berit@harbour.example');
    await page.getByLabel('Password').first().fill('a long enough one');
    await accessible(page);
    await page.keyboard.press('Enter');
    await page.getByRole('button', { name: 'Make this client' }).waitFor();
    const again = await context.newPage();
    await again.goto(process.env.FIRST_OWNER!);
    await expect(again.getByRole('alert')).toContainText('This link is not good any more');
    await again.close();
  });

  await test.step('a client is made, and another person invited', async () => {
    await page.getByRole('textbox', { name: 'Name' }).fill('Harbour Tours');
    await accessible(page);
    await page.keyboard.press('Enter');
    await expect(page.getByRole('heading', { name: 'No account is here yet' })).toBeVisible();
    await accessible(page);
    await page.goto('/harbour-tours/people');
    await page.getByPlaceholder('E-mail address').fill('jo@harbour.example');
    await page.keyboard.press('Enter');
    const link = await page.getByText('/join#').textContent();
    await accessible(page);
    const other = await context.browser()!.newContext();
    const jo = await other.newPage();
    await jo.goto(link!.trim());
    await expect(jo.getByText('Harbour Tours, as an editor.')).toBeVisible();
    await jo.getByLabel('Your name').fill('Jo Vik');
    await jo.getByLabel('Password').first().fill('a long enough one');
    await jo.keyboard.press('Enter');
    await expect(jo).toHaveURL(/harbour-tours\/audit$/);
    await expect(jo.getByRole('link', { name: 'Bring in an account' })).toBeVisible();
    await accessible(jo);
    await other.close();
    await page.reload();
    await expect(page.getByRole('row', { name: /Jo Vik/ })).toContainText('plan, import, draft, apply');
    await page.getByRole('button', { name: 'take Jo Vik out' }).click();
    await expect(page.getByRole('row', { name: /Jo Vik/ })).toHaveCount(0);
    await page.getByRole('button', { name: 'take Berit Sund out' }).click();
    await expect(page.getByRole('alert')).toContainText('is the only owner');
  });

  await test.step('a platform that nobody has heard of is described', async () => {
    await page.goto('/harbour-tours/platforms/northquay-search');
    await page.getByRole('heading', { name: 'Try it' }).click();
    await page.keyboard.press('w');
    await page.getByText('document', { exact: true }).click();
    await page.getByLabel("the platform's document").fill(readFileSync('tests/data/lanternmail.yaml', 'utf8'));
    await page.getByRole('button', { name: 'Keep it' }).click();
    await expect(page.getByRole('heading', { name: 'Lanternmail' })).toBeVisible();
  });

  await test.step('its export becomes an account', async () => {
    await page.goto('/harbour-tours/accounts');
    await page
      .locator('input[type=file]')
      .setInputFiles([{ name: 'letters.csv', mimeType: 'text/csv', buffer: Buffer.from(LETTERS, 'utf8') }]);
    await page.getByLabel('Platform').first().click();
    await page.getByRole('option', { name: 'Lanternmail' }).click();
    await page.getByLabel('Its number').fill('L-1');
    await page.getByLabel('Its name').fill('Tours on Lantern');
    await page.keyboard.press('Enter');
    await page.getByRole('button', { name: /Read every row/ }).click();
    await page.getByRole('button', { name: /^Bring 2 in/ }).click();
    await expect(page.getByTitle('Deck seats').first()).toBeVisible();
  });

  await test.step('what is agreed is written down', async () => {
    await page.goto('/harbour-tours/plan');
    await page.getByRole('button', { name: 'Begin with the five UTM keys' }).click();
    await page.getByRole('button', { name: 'Save the plan' }).click();
    await expect(page.getByText('revision 1', { exact: true })).toBeVisible();
  });

  await test.step('the account is brought in line, and the sheet taken away', async () => {
    await page.goto('/harbour-tours/accounts');
    await expect(page.getByText('of 2 ads')).toBeVisible();
    await page.getByRole('button', { name: 'Bring in line' }).click();
    await page.getByRole('button', { name: 'Work it out' }).click();
    await page.getByRole('button', { name: /^Apply \d+ writes/ }).waitFor();
    await page.keyboard.press('a');
    await accessible(page);
    const download = page.waitForEvent('download');
    await page.getByRole('link', { name: 'Take the sheet to upload' }).click();
    const sheet = readFileSync(await (await download).path(), 'utf8');
    expect(sheet).toMatch(/^"Letter number";Link\r\n7031;https:\/\/harbour\.example\/hop\?utm_source=lanternmail/);
    await page.getByRole('button', { name: 'The platform has taken all of it' }).click();
    await expect(page.getByTestId('status')).toHaveText('applied and read back', { timeout: 30_000 });
  });
});
