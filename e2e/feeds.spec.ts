import { expect, test } from '@playwright/test';
import { accessible, signIn } from './world';

const LIST = [
  'id,kind,price,link,ad_link',
  'T1,car,120.00,https://velmar.example/t/1?ref=list,https://velmar.example/t/1',
  'T2,foot,19.00,https://velmar.example/t/2,https://velmar.example/t/2',
  'T3,car,90.00,,https://velmar.example/t/3',
  '',
].join('\n');

test('a list is put in, rules are written beside what they make, applied, handed on, and gone back from', async ({
  page,
  request,
}) => {
  await signIn(page);
  await page.getByRole('treegrid').waitFor();
  await page.keyboard.press('7');
  const lists = page.getByRole('navigation', { name: 'product lists' });
  const another = lists.getByRole('button', { name: 'another list …' });
  const form = page.getByRole('form', { name: 'another product list' });
  await expect(another.or(form)).toBeVisible();
  if (await another.isVisible()) await another.click();
  await form.getByLabel('What is it called?').fill('Pier tickets');
  await form.getByRole('button', { name: 'Add it' }).click();
  await expect(page.getByRole('heading', { name: 'Pier tickets' })).toBeVisible();
  const put = async (content: string) => {
    const [chooser] = await Promise.all([
      page.waitForEvent('filechooser'),
      page.getByRole('button', { name: 'put in a file …' }).click(),
    ]);
    await chooser.setFiles({ name: 'list.csv', mimeType: 'text/csv', buffer: Buffer.from(content) });
  };
  await put(LIST);
  await expect(page.getByText('3 items, came')).toBeVisible();

  const rules = page.getByRole('region', { name: 'what is done to its links' });
  await expect(rules.getByRole('button', { name: 'listings by ad_link are paid; change that' })).toBeVisible();
  await rules.getByRole('button', { name: 'another rule …' }).click();
  const first = rules.getByRole('group', { name: /^rule 1/ });
  await first.getByLabel('what the rule is for').fill('dear cars');
  await first.locator('input[aria-label="value"]').fill('tide');
  await expect(first.getByText('takes 3 of 3')).toBeVisible();
  await expect(first.getByText('utm_source=tide').first()).toBeVisible();
  await first.getByRole('button', { name: 'only where …' }).click();
  await first.locator('input[aria-label="column"]').fill('price');
  await first.getByLabel('how it is compared').selectOption('is over');
  await first.getByLabel('with what').fill('100');
  await expect(first.getByText('takes 1 of 3')).toBeVisible();
  await first.getByRole('button', { name: 'a column' }).click();
  await page.getByRole('menuitem', { name: /^kind/ }).click();
  await expect(first.getByText('utm_source=tidecar').first()).toBeVisible();
  await accessible(page);

  const made = page.getByRole('complementary', { name: 'what comes of it' });
  await expect(made.getByText('have no link there')).toBeVisible();
  await made.getByLabel('why').fill('dear ones apart');
  await made.getByRole('button', { name: 'Work it out over all items' }).click();
  await expect(made.getByText('1 of 3 items would be handed on with other links, since dear ones apart')).toBeVisible();
  await made.getByRole('button', { name: 'Apply it' }).click();
  const address = page.getByRole('button', { name: /\/feeds\/\w{40}\.csv/ });
  await expect(address).toBeVisible();
  const out = (await address.getAttribute('title'))!;
  const answer = await request.get(out);
  expect(await answer.text()).toBe(
    LIST.replace('t/1?ref=list', 't/1?ref=list&utm_source=tidecar').replace('t/1\n', 't/1?utm_source=tidecar\n'),
  );
  // RFC 9110, 13.1.2
  const same = await request.get(out, { headers: { 'If-None-Match': answer.headers()['etag']! } });
  expect(same.status()).toBe(304);

  // one that has lost most of its items is held, and what is handed on stays
  await put('id,kind,price,link,ad_link\nT9,foot,1.00,https://velmar.example/t/9,\n');
  await expect(page.getByText('The list has 1 items, and had 3.')).toBeVisible();
  expect(await (await request.get(out)).text()).toContain('T3');
  await accessible(page);
  await page.getByRole('button', { name: 'It is right as it is: take it' }).click();
  await expect(page.getByText('1 item, came')).toBeVisible();
  await expect.poll(async () => (await request.get(out)).text()).not.toContain('T3');
});
