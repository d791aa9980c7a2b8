import { expect, test } from '@playwright/test';
import { workAtTheDesk } from './outside.mjs';
import { accessible, signIn } from './world';

test('what others wrote on a platform is found, accepted and put back, by keyboard', async ({ page }) => {
  await signIn(page);
  await page.getByRole('treegrid').waitFor();
  const found = await workAtTheDesk(page, process.env.STANDINS_PORT ?? '9750');

  await page.goto('/velmar/accounts');
  await page.getByRole('button', { name: 'by hand' }).click();
  await page.getByRole('combobox', { name: /by itself/ }).click();
  await page.getByRole('option', { name: 'every day' }).click();
  await expect(page.getByText(/The next one begins/)).toBeVisible();
  await accessible(page);
  await page.keyboard.press('Escape');
  await expect(page.getByRole('button', { name: 'every day' })).toBeFocused();

  await page.getByRole('button', { name: /Import from Northquay/ }).click();
  await page.getByRole('button', { name: 'Look and decide' }).click({ timeout: 60_000 });
  const line = page.getByRole('listitem').filter({ hasText: `${found.campaign.name} (winter)` });
  await expect(line).toBeVisible({ timeout: 30_000 });
  await expect(line.getByText('being proven')).toBeHidden({ timeout: 30_000 });
  await expect(page.getByText('utm_source=agency')).toBeVisible();
  await accessible(page);

  await line.getByRole('checkbox').focus();
  await page.keyboard.press('Space');
  await page.keyboard.press('y');
  await expect(line).toBeHidden();

  const group = page.getByRole('checkbox', { name: new RegExp(`^${found.group.name}: suffix`) });
  await page.getByRole('checkbox').first().focus();
  for (let i = 0; i < 5 && !(await group.evaluate((box) => box === document.activeElement)); i++)
    await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Space');
  await page.keyboard.press('b');
  await expect(page.getByRole('heading', { name: 'Put back what was changed outside' })).toBeVisible();
  await expect(page.getByTestId('status').getByText('worked out')).toBeVisible({ timeout: 30_000 });

  await page.keyboard.press('u');
  await page.getByText('decided', { exact: true }).click();
  await expect(page.getByText(/^put back by Mara/)).toBeVisible();
  await expect(page.getByText(/^accepted by Mara/)).toBeVisible();
  await accessible(page);
});
