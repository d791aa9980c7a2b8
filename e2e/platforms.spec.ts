import { readFileSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import { accessible, liveAds, signIn } from './world';

test('a platform is read, tried, and a ninth is written, kept, shared and removed', async ({ page }) => {
  await signIn(page);
  await page.getByRole('treegrid').waitFor();
  await page.keyboard.press('9');
  await expect(page.getByRole('heading', { name: 'Coppervane' })).toBeVisible(); // their own comes first
  await page.getByRole('link', { name: 'Northquay Search' }).click();
  await expect(page.getByRole('heading', { name: 'Northquay Search' })).toBeVisible();
  await expect(page.getByRole('table', { name: 'levels and slots' })).toContainText('text, video only');
  await accessible(page);

  await test.step('its tokens are searched by what they give', async () => {
    await page.keyboard.press('/');
    await page.keyboard.type('keyword twice');
    await expect(page.getByRole('cell', { name: '{term.enc2}' })).toBeVisible();
    await expect(page.getByRole('cell', { name: '{landing}', exact: true })).toBeHidden();
  });

  await test.step('a click answers while a text is typed', async () => {
    await page.getByRole('link', { name: /Hearthring/ }).click();
    await page.getByLabel('Post suffix').fill('c=[Campaign:Name]&p=[post:id]');
    await expect(page.getByTestId('trial-ribbon')).toContainText('c=[Campaign:Name]&p=7103&hrcid=Q7f-2x');
    await page.getByRole('button', { name: /write \[campaign:name\]/ }).click();
    await expect(page.getByTestId('trial-ribbon')).toContainText('c=Campaign%20One&p=7103');
  });

  await test.step('one of our own: what is wrong shows while it is written', async () => {
    await page.getByRole('heading', { name: 'Try it' }).click();
    await page.keyboard.press('w');
    await page.getByText('document', { exact: true }).click();
    const box = page.getByLabel("the platform's document");
    await box.fill((await box.inputValue()).replace('family: social', 'family: radio'));
    await expect(page.getByRole('list', { name: 'what is wrong with the document' })).toContainText(
      'family One of search, social, native, display, portal is wanted.',
    );
    await page.getByRole('button', { name: 'Keep it' }).click();
    await expect(page.getByRole('alert')).toContainText('What you typed is still here');
    await accessible(page);
    await box.fill(readFileSync('tests/data/lanternmail.yaml', 'utf8'));
    await page.getByLabel('Letter landing').fill('https://v.example/?s=(:letter:)');
    await expect(page.getByTestId('trial-ribbon')).toHaveText('https://v.example/?s=Letter+One');
    await page.getByRole('button', { name: 'Keep it' }).click();
    await expect(page.getByRole('heading', { name: 'Lanternmail' })).toBeVisible();
    await expect(page.getByRole('navigation', { name: 'platforms' })).toContainText('your own');
  });

  await test.step('it goes out as a file and is removed', async () => {
    const download = page.waitForEvent('download');
    await page.getByRole('link', { name: 'JSON' }).click();
    const file = await download;
    expect(file.suggestedFilename()).toBe('lanternmail.dialect.json');
    expect((JSON.parse(readFileSync(await file.path(), 'utf8')) as { id: string }).id).toBe('lanternmail');
    await page.getByRole('button', { name: 'Remove' }).click();
    await expect(page.getByRole('heading', { name: 'Lanternmail' })).toBeHidden();
  });
});

test('the picture zooms and filters; a finding is mended wherever its text stands', async ({ page }) => {
  await signIn(page);
  await page.getByRole('treegrid').waitFor();
  await page.getByRole('button', { name: 'account', exact: true }).click();
  await page.getByRole('menuitem', { name: /Velmar Travel Stories/ }).click();
  const table = page.getByRole('treegrid', { name: /Velmar Travel Stories/ });
  await expect(table).toContainText('Weather tales');
  await page.locator('[data-cell]', { hasText: 'Island people' }).click();
  await expect(table).not.toContainText('Weather tales');
  await expect(table).toContainText('9 reasons to sail to Skerrow');
  await accessible(page);
  await page.getByRole('button', { name: 'zoom out' }).click();
  await expect(table).toContainText('Weather tales');

  const picture = page.getByRole('tree', { name: 'picture of the account' });
  const on = () =>
    picture.evaluate((tree) => {
      const cell = document.getElementById(tree.getAttribute('aria-activedescendant') ?? '');
      return cell?.getAttribute('aria-label') ?? '';
    });
  await picture.focus();
  await page.keyboard.press('ArrowRight');
  for (let i = 0; i < 10 && !(await on()).startsWith('Island people'); i++) await page.keyboard.press('ArrowDown');
  expect(await on()).toMatch(/^Island people, \d+ proven, \d+ broken, \d+ untracked$/);
  await page.keyboard.press('Enter');
  await expect(table).not.toContainText('Weather tales');
  await page.keyboard.press('Backspace');
  await expect(table).toContainText('Weather tales');

  const finding = page.locator('[data-code=unclosed-token]').first();
  await expect(finding).toContainText('~headline has no closing ~');
  await finding.click();
  await expect(page.getByLabel('the row in full')).toContainText('Island people');
  await page.getByRole('heading', { name: 'Findings' }).click();
  await page.keyboard.press('f');
  await expect(page.getByRole('heading', { name: 'Close ~headline (unclosed-token)' })).toBeVisible();
  await expect(page.getByRole('button', { name: /^Apply 1 write/ })).toBeVisible();
  await expect(page.getByLabel('after, click URL').first()).toContainText('h=9+reasons+to+sail+to+Skerrow');
  await page.keyboard.press('a');
  await expect(page.getByTestId('status')).toHaveText('applied and read back', { timeout: 60_000 });
  const applied = page.url();
  await page.goBack();
  await expect(page.locator('[data-code=stale-literal]').first()).toBeVisible();
  await expect(page.locator('[data-code=unclosed-token]')).toHaveCount(0);

  await page.goto(applied);
  await page.getByRole('button', { name: 'Take it back' }).click();
  await expect(page.getByRole('heading', { name: /^Take back: Close/ })).toBeVisible();
  await expect(page.getByRole('button', { name: /^Apply 1 write/ })).toBeVisible();
  await expect(page.getByLabel('after, click URL').first()).toContainText('h=~headline');
});

test('any text is tried on any platform, without an ad', async ({ page }) => {
  await signIn(page);
  await page.getByRole('treegrid').waitFor();
  await page.keyboard.press('3');
  await page
    .getByLabel('A URL or a text')
    .fill('{landing}?utm_source=northquay&utm_medium=cpc&utm_campaign={campaign.ident}');
  await expect(page.getByTestId('bench-ribbon')).toContainText('utm_campaign={campaign.ident}');
  const line = page.getByLabel('how a report reads this click');
  await expect(line).toContainText('Paid search');
  await expect(line).toContainText('northquay / cpc');
  await accessible(page);
  await page.getByRole('button', { name: /^fix: write \{campaign\.id\}/ }).click();
  await expect(page.getByTestId('bench-ribbon')).not.toContainText('ident');
  await page.getByRole('combobox', { name: 'Platform' }).click();
  await page.getByRole('option', { name: 'Hearthring', exact: true }).click();
  await page.getByLabel('A URL or a text').fill('https://shop.example/page?utm_source=hearthring');
  await expect(line).toContainText('hearthring / (empty)');
  await expect(page.getByText('No ad that is imported sends this very URL')).toBeVisible();

  const lines = ['https://shop.example/?utm_source=a', 'https://shop.example/b', 'ferry'];
  await page.getByLabel('A URL or a text').fill(lines.join('\n'));
  const many = page.getByRole('list', { name: 'URLs, and whose they can be' });
  await expect(many.getByRole('listitem')).toHaveCount(3);
  await page.getByRole('button', { name: '1 no web address' }).click();
  await expect(many.getByRole('listitem')).toHaveText([/^ferry/]);
  await accessible(page);
  const file = page.waitForEvent('download');
  await page.getByRole('button', { name: 'All as XLSX' }).click();
  expect((await file).suggestedFilename()).toMatch(/^urls velmar .*\.xlsx$/);
});

test('in a trace a fix is tried with one key, and made a change with another', async ({ page }) => {
  await signIn(page);
  await page.getByRole('treegrid').waitFor();
  await page.keyboard.press('Control+k');
  await page.getByRole('textbox', { name: 'find' }).fill('Captain waves');
  await page
    .getByRole('option', { name: /Captain waves/ })
    .first()
    .waitFor();
  await page.keyboard.press('Enter');
  await page.getByTestId('ribbon').waitFor();
  const ad = page.url();
  await expect(page.getByRole('list', { name: /what is wrong with its texts/ })).toContainText(
    'tells capitals from small letters',
  );
  await expect(page.locator('mark')).toHaveText('[Campaign:Name]');
  const before = await page.getByTestId('ribbon').textContent();
  await page.keyboard.press('f');
  await expect(page.getByText('tried, not saved').first()).toBeVisible();
  await expect(page.getByTestId('ribbon')).not.toHaveText(before!);
  await accessible(page);
  await page.keyboard.press('m');
  await expect(page.getByRole('button', { name: /^Apply 1 write/ })).toBeVisible();
  expect(ad).toContain('/trace/');
});

test('a click on another platform arrives with what its own servers put together', async ({ page, context }) => {
  await signIn(page);
  await page.getByRole('treegrid').waitFor();
  const arrivals = await context.newPage();
  await arrivals.goto('/velmar/arrivals');
  await page.goto(`${liveAds('hearthring')}?q=Puffin`);
  const link = page.locator('a[data-ad]').first();
  const name = (await link.textContent())!;
  await link.click();
  await expect(page).toHaveURL(/velmar\.localhost.*hrcid=hr/);
  const row = arrivals.locator('[data-arrival]').first();
  await expect(row).toContainText(name, { timeout: 5_000 });
  await expect(row).toContainText(new URL(page.url()).searchParams.get('hrcid')!);
  await arrivals.getByRole('button', { name: 'Open the live ads' }).click();
  await expect(arrivals.getByRole('menuitem')).toHaveText([
    'Northquay Search',
    'Pellworth Search',
    'Hearthring',
    'Mossfeed',
    'Oldgate Portal',
  ]);
});

test('a click tracker is suggested by the texts, tried beside, told of, and followed by every trace', async ({
  page,
}) => {
  await signIn(page);
  await page.getByRole('treegrid').waitFor();
  await page.goto('/velmar/platforms/over/trackers');
  await page.getByRole('button', { name: 'Change hopgate.localhost' }).click();
  await page.getByRole('button', { name: 'Forget it' }).click();
  await page.getByRole('button', { name: 'Tell of hopgate.localhost' }).click();
  await expect(page.getByText('hopgate.localhost redirects')).toBeVisible();
  await expect(page.getByText('velmar.localhost lands')).toBeVisible();
  await page.getByRole('button', { name: 'Add a key' }).click();
  await page.getByLabel('key 1 that it adds').fill('hgcid');
  await page.getByLabel('value 1 that it adds').fill('H0');
  await expect(page.getByRole('row', { name: 'hgcid H0' })).toBeVisible();
  await accessible(page);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('list', { name: 'trackers that clicks pass' })).toContainText('adds hgcid=H0');
  await accessible(page);
});

test('a platform is written by drawing, from its help, and from a real click', async ({ page }) => {
  await signIn(page);
  await page.getByRole('treegrid').waitFor();
  await page.goto('/velmar/platforms/mossfeed');
  await page.getByText('How a click is put together').waitFor();
  await page.keyboard.press('w');
  await page.getByLabel('Its id').fill('fernwire');
  await page.getByLabel('Called').fill('Fernwire');

  const suffix = page.getByRole('button', { name: 'suffix on Account' });
  await suffix.focus();
  await page.keyboard.press('Enter');
  await expect(suffix).toHaveAttribute('aria-pressed', 'true');
  await page.getByRole('button', { name: 'Add a level above the last' }).click();
  await page.getByLabel('name of level 3').fill('Series');
  await page.getByRole('button', { name: 'without Series' }).click();
  await accessible(page);

  await page.getByText('placeholders', { exact: true }).click();
  await page
    .getByLabel('Paste the platform’s own list of placeholders')
    .fill('[[cid]]\tCampaign id\n[[iid]]\tAd id\n[[hl]]\tTitle of the ad\n[[what]]\tReserved\n');
  await page.getByRole('button', { name: 'Read it' }).click();
  await expect(page.getByText('Names stand between [[ and ]].')).toBeVisible();
  await expect(page.getByRole('combobox', { name: 'what hl gives' })).toHaveValue('ad.name');
  await accessible(page);
  await page.getByRole('button', { name: 'Take 3 placeholders over, leave 1 out' }).click();
  await expect(page.getByRole('cell', { name: '[[cid]]' })).toBeVisible();

  const trial = page.getByRole('complementary', { name: 'try it' });
  await trial.getByLabel('Account suffix').fill('utm_content=[[iid]]&utm_campaign=[[hl]]');
  await trial.getByLabel('Campaign suffix').fill('');
  await trial.getByLabel('Item landing').fill('https://shop.example/page?lang=en#top');
  await expect(trial.getByTestId('trial-ribbon')).toContainText('utm_content=');
  const url = 'https://shop.example/page?lang=en&fwid=88&utm_content=71&utm_campaign=Winter%20Sale#top';
  await trial.getByLabel('A real click’s URL').fill(url);
  await trial.getByRole('button', { name: 'Hold it against the rules' }).click();
  await expect(trial.getByText('a click ID is added as fwid')).toBeVisible();
  await accessible(page);
  await trial.getByRole('button', { name: 'Write it so' }).click();
  await trial.getByRole('button', { name: 'Hold it against the rules' }).click();
  await expect(trial.getByText('The rules explain this URL, character by character.')).toBeVisible();

  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByRole('heading', { name: 'Fernwire', exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'Remove' }).click();
});
