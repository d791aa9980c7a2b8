import { createHmac } from 'node:crypto';
import { expect, request, test } from '@playwright/test';
import { accessible, signIn } from './world';

const ODILE = 'odile@velmar.example';
const port = process.env.STANDINS_PORT ?? '9750';

/** The code of now (RFC 6238), as an authenticator would show it. */
function codeOf(secret: string, step = Math.floor(Date.now() / 30_000)): string {
  const bits = [...secret]
    .map((c) => 'ABCDEFGHIJKLMNOPQRSTUVWXYZ234567'.indexOf(c).toString(2).padStart(5, '0'))
    .join('');
  const key = Buffer.from(
    Array.from({ length: Math.floor(bits.length / 8) }, (_, i) => parseInt(bits.slice(i * 8, i * 8 + 8), 2)),
  );
  const counter = Buffer.alloc(8);
  counter.writeBigUInt64BE(BigInt(step));
  const hmac = createHmac('sha1', key).update(counter).digest();
  return String((hmac.readUInt32BE(hmac[19]! & 15) & 0x7fffffff) % 1_000_000).padStart(6, '0');
}

test('a forgotten password, a second factor, and sessions', async ({ page, browser }) => {
  await test.step('a link comes by mail, and is good once', async () => {
    await page.goto('/');
    await page.getByRole('button', { name: 'Forgotten your password?' }).click();
    await page.getByLabel('E-mail address').fill(ODILE.toUpperCase());
    await page.getByRole('button', { name: 'Send the link' }).click();
    await expect(page.getByRole('status')).toContainText('a link is on its way');
    await accessible(page);
    const http = await request.newContext({ extraHTTPHeaders: { Host: `mailbox.localhost:${port}` } });
    let link: string | undefined;
    await expect(async () => {
      const mails = (await (await http.get(`http://127.0.0.1:${port}/messages`)).json()) as {
        items: { to: string; text: string }[];
      };
      link = /\/reset#\S+/.exec(mails.items.find((m) => m.to.includes(ODILE))?.text ?? '')?.[0];
      expect(link).toBeDefined();
    }).toPass();
    await http.dispose();
    await page.goto(link!);
    await page.getByLabel('New password').first().fill('ferries at noon');
    await accessible(page);
    await page.getByRole('button', { name: 'Change it' }).click();
    await expect(page.getByRole('status')).toContainText('The password is changed');
    await page.getByRole('link', { name: 'Sign in' }).click();
  });

  let secret = '';
  let word = '';
  await test.step('a second factor is turned on with a code of it', async () => {
    await signIn(page, ODILE, 'ferries at noon');
    await page.getByRole('treegrid').waitFor();
    await page.getByLabel(/signed in as/).click();
    await page.getByRole('menuitem', { name: 'Your way in' }).click();
    await page.getByRole('button', { name: 'Turn it on' }).click();
    await page.getByAltText('The secret as a QR code').waitFor();
    await accessible(page);
    secret = ((await page.locator('figcaption .mono').textContent()) ?? '').replaceAll(' ', '');
    await page.getByLabel('Code').fill(codeOf(secret));
    const form = page.locator('form');
    await form.getByLabel('Password').first().fill('ferries at noon');
    await form.getByRole('button', { name: 'Turn it on' }).click();
    await expect(page.getByText('Keep these words')).toBeVisible();
    word = (await page.locator('code').first().textContent()) ?? '';
    await page.getByRole('button', { name: 'I have them' }).click();
    await expect(page.getByText('8 recovery words are left')).toBeVisible();
  });

  await test.step('elsewhere it is asked for; what is signed in there is seen and ended here', async () => {
    const elsewhere = await (await browser.newContext()).newPage();
    await signIn(elsewhere, ODILE, 'ferries at noon');
    await elsewhere.getByLabel('Code').fill('000000');
    await elsewhere.getByRole('button', { name: 'Go on' }).click();
    await expect(elsewhere.getByRole('alert')).toContainText('not the one of now');
    await accessible(elsewhere);
    await elsewhere.getByLabel('Code').fill(word);
    await elsewhere.getByRole('button', { name: 'Go on' }).click();
    await elsewhere.getByRole('treegrid').waitFor();
    await page.reload();
    await expect(page.getByText('7 recovery words are left')).toBeVisible();
    await page.getByRole('button', { name: 'End it' }).first().click();
    await expect(page.getByRole('button', { name: 'End it' })).toHaveCount(0);
    await elsewhere.reload();
    await expect(elsewhere.getByRole('button', { name: 'Sign in' })).toBeVisible();
    await elsewhere.close();
  });
});
