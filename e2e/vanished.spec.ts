import { expect, request, test, type APIRequestContext } from '@playwright/test';
import { accessible, signIn } from './world';

const port = process.env.STANDINS_PORT ?? '9750';

/** Takes an element away at the platform's own desk. */
async function remove(http: APIRequestContext, id: string): Promise<void> {
  const answer = await http.post(`http://127.0.0.1:${port}/edit`, { data: { site: 'northquay', id, remove: true } });
  expect(await answer.json()).toEqual({ edited: 1 });
}

test('what is not on the platform any more is kept, and what hangs in the air is said', async ({ page }) => {
  const http = await request.newContext({ extraHTTPHeaders: { Host: `control.localhost:${port}` } });
  await signIn(page);
  await page.getByRole('treegrid').waitFor();
  await page.goto('/velmar/accounts');
  await page.getByRole('treegrid').waitFor();
  const [one, other] = await page.evaluate(async () => {
    const get = async (path: string) =>
      (await (await fetch(`/api/v1/clients/1${path}`)).json()) as {
        items: { id: number; dialect: string }[];
        rows: { id: number; externalId: string }[];
        path: { externalId: string }[];
      };
    const account = (await get('/accounts')).items.find((a) => a.dialect === 'northquay-search')!.id;
    const { rows } = await get(`/accounts/${account}/rows?q=Tarnsay%20by%20boat`);
    const orphans = (await get(`/nodes/${rows[0]!.id}`)).path.at(-2)!.externalId;
    const alone = (await get(`/accounts/${account}/rows?q=Halvey%20by%20boat`)).rows[0]!.externalId;
    return [orphans, alone];
  });
  await remove(http, one!);
  await remove(http, other!);
  await http.dispose();

  await page.getByRole('button', { name: /Import from Northquay/ }).click();
  await expect(page.getByText(/could not be taken over/)).toBeVisible({ timeout: 90_000 });
  await page.getByRole('button', { name: 'Which' }).click();
  await expect(page.getByText(`the platform did not deliver what it stands under (${one!})`).first()).toBeVisible();
  await accessible(page);
  await page.getByText(/^gone \d+$/).click();
  await page.getByLabel('filter by name or number').fill('Halvey by boat');
  await page.getByTitle('Halvey by boat A').first().waitFor();
  await page.getByRole('treegrid').focus();
  await page.keyboard.press('Enter');
  await expect(page.getByText('has not had this ad since')).toBeVisible();
  await expect(page.getByTestId('ribbon')).toContainText('velmar.localhost');
  await accessible(page);
});
