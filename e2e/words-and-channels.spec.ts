import { readFileSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import { accessible, signIn } from './world';

test('a plan says at its cell what is wrong while it is typed, and one key mends it', async ({ page }) => {
  await signIn(page);
  await page.getByRole('treegrid').waitFor();
  await page.keyboard.press('1');
  const says = page.getByLabel('what utm_source says', { exact: true });
  const before = await says.inputValue();
  await says.fill('North Quay Ads');
  await expect(page.getByText('“North Quay Ads” has capital letters')).toBeVisible();
  await accessible(page);
  await page.getByRole('button', { name: 'write north_quay_ads' }).click();
  await expect(says).toHaveValue('north_quay_ads');
  await expect(page.getByText('has capital letters')).toBeHidden();
  await says.fill(before);
  await expect(page.getByRole('row', { name: /counted as/ })).toContainText('Paid search');
  const wanted = page.getByRole('combobox', { name: /wanted for search, Northquay Search text/ });
  await wanted.click();
  await page.getByRole('option', { name: 'Paid social', exact: true }).click();
  await expect(page.getByText('would be counted as Paid search').first()).toBeVisible();
  await page.getByRole('button', { name: 'Undo all' }).click();
  await expect(page.getByText('would be counted as Paid search')).toBeHidden();

  await test.step('what another value would do is seen before it is saved', async () => {
    await page.getByLabel('what utm_medium says', { exact: true }).fill('ppc');
    const would = page.getByRole('region', { name: 'what it would do' });
    await expect(would.getByRole('row')).toHaveText(['utm_mediumsayscpcppc']);
    await would.getByRole('button', { name: 'Hold it against all ads' }).click();
    await expect(would.getByRole('status')).toHaveText(/^Proven now, would not be: \d+ ads of \d accounts?\.$/, {
      timeout: 60_000,
    });
    await accessible(page);
    await page.getByRole('button', { name: 'Undo all' }).click();
  });

  await test.step('another plan takes its place for some campaigns', async () => {
    await page.getByRole('button', { name: 'Another plan for some ads' }).click();
    await expect(page.getByText(/^Say which values .+ has where it counts\.$/)).toBeVisible();
    await expect(page.getByRole('button', { name: 'Save the plan' })).toBeDisabled();
    await page.getByRole('button', { name: /^without / }).click();
    await page.getByRole('textbox', { name: 'title', exact: true }).fill('Offers');
    await page.getByRole('combobox', { name: 'for campaigns of type' }).click();
    await page.getByRole('option', { name: 'listing', exact: true }).click();
    await page.keyboard.press('Escape');
    await expect(page.getByRole('tab', { name: /^Offers \d+ ads$/ })).toBeVisible();
    await says.fill('north_offers');
    const would = page.getByRole('region', { name: 'what it would do' });
    // what it would do says it too, a moment later
    await expect(page.getByRole('cell', { name: /^north_offers/ }).first()).toBeVisible();
    await expect(would.getByRole('row', { name: /^utm_source · Offers says .+north_offers$/ })).toBeVisible();
    await accessible(page);
    await page.getByRole('tab', { name: /^everything else/ }).click();
    await expect(says).toHaveValue(before);
    await page.getByRole('button', { name: 'Undo all' }).click();
    await expect(page.getByRole('tab')).toHaveCount(0);
  });

  await test.step('what it lacks of a set of keys is added, and its own keys are kept as a set', async () => {
    await page.getByRole('button', { name: 'Key sets' }).click();
    await expect(page.getByRole('menuitem', { name: /The five UTM keys/ })).toBeDisabled();
    await page.getByRole('menuitem', { name: /Numbers of every level/ }).click();
    await expect(page.getByLabel('what group_id says', { exact: true })).toHaveValue('‹group.id›');
    await page.getByRole('button', { name: 'Key sets' }).click();
    await page.getByRole('menuitem', { name: /Your own sets/ }).click();
    const sets = page.getByRole('dialog', { name: 'Key sets' });
    await sets.getByLabel('Title').fill('Ours');
    await sets.getByRole('button', { name: /as a set$/ }).click();
    await accessible(page);
    await sets.getByRole('button', { name: 'Agree' }).click();
    await expect(sets.getByText(/^revision 1/)).toBeVisible();
    await page.keyboard.press('Escape');
    await page.getByRole('button', { name: 'Undo all' }).click();
  });

  await test.step('it is taken away as a sheet, and an earlier revision is brought back', async () => {
    await page.getByRole('button', { name: 'as a file' }).click();
    const download = page.waitForEvent('download');
    await page.getByRole('menuitem', { name: 'Take it as CSV' }).click();
    expect(readFileSync((await (await download).path())!, 'utf8').split(',')[0]).toBe('key');
    await page.keyboard.press('Escape');
    await page.getByRole('button', { name: /^revision \d+$/ }).click();
    await page.getByRole('menuitem', { name: /^(Load|Bring back) revision 1/ }).click();
    await expect(says).not.toHaveValue('');
  });
});

test('words are agreed on, one arrives that is none, one is retired with what it touches', async ({ page }) => {
  await signIn(page);
  await page.getByRole('treegrid').waitFor();
  await page.keyboard.press('1');
  await page.getByRole('navigation', { name: 'what is agreed on' }).waitFor();
  await page.keyboard.press('w');
  await page.getByRole('tab', { name: /utm_medium/ }).click();
  await page.getByRole('button', { name: 'Paste from a sheet' }).click();
  await page.getByLabel('Words, and what they mean').fill('cpc\tpaid by the click\nppc\tan older word');
  await page.getByRole('button', { name: 'Take them over' }).click();
  await expect(page.getByLabel('what cpc means')).toHaveValue('paid by the click');
  await page
    .getByRole('row', { name: /ppc|an older word/ })
    .last()
    .getByRole('button', { name: 'retire' })
    .click();
  await expect(page.getByRole('list', { name: 'what it touches' })).toContainText('The plan does not say it.');
  await page.getByRole('combobox', { name: 'What takes its place' }).click();
  await page.getByRole('option', { name: 'cpc' }).click();
  await accessible(page);
  await page.getByRole('button', { name: 'Retire it' }).click();
  await expect(page.getByRole('region', { name: 'words of utm_medium' })).toContainText('use cpc');
  await page.getByRole('button', { name: 'Agree', exact: true }).click();
  await expect(page.getByRole('button', { name: /revision 1, from/ })).toBeVisible();
  await accessible(page);

  await page.keyboard.press('m');
  const medium = page.getByLabel('what utm_medium says', { exact: true });
  await medium.fill('ppc');
  await page.getByRole('button', { name: 'write cpc' }).first().click();
  await expect(medium).toHaveValue('cpc');
});

test('a channel rule is added, and what it would move is seen before it is agreed on', async ({ page }) => {
  await signIn(page);
  await page.getByRole('treegrid').waitFor();
  await page.keyboard.press('1');
  await page.getByRole('navigation', { name: 'what is agreed on' }).waitFor();
  await page.keyboard.press('h');
  await page.getByLabel('utm_source', { exact: true }).fill('hearthring');
  await page.getByLabel('utm_medium', { exact: true }).fill('cpc');
  await expect(page.getByTestId('counted')).toContainText('Counted as Paid social');
  await accessible(page);
  await page.getByRole('button', { name: 'Add a rule' }).click();
  await page.getByLabel('Channel', { exact: true }).fill('Ferries');
  await expect(async () => {
    await page.getByRole('combobox', { name: 'what test 1 looks at' }).click();
    await page.getByRole('option', { name: 'source' }).click({ timeout: 3000 });
  }).toPass(); // what would move comes in meanwhile, and may close the list
  await page.getByLabel('test 1 is one of').fill('northquay, hearthring');
  await expect(page.getByTestId('counted')).toContainText('Counted as Ferries');
  await expect(page.getByRole('region', { name: 'what would move' })).toContainText('Paid search → Ferries');
  await accessible(page);
  await page.getByRole('button', { name: 'Agree', exact: true }).click();
  await expect(page.getByRole('button', { name: /revision 1, from/ })).toBeVisible();
  await page.reload();
  await expect(page.getByRole('region', { name: 'the rules' })).toContainText('Ferries');
});

test('names get a pattern, are put together by keyboard, and those that are off are found', async ({ page }) => {
  await signIn(page);
  await page.getByRole('treegrid').waitFor();
  await page.keyboard.press('1');
  await page.getByRole('navigation', { name: 'what is agreed on' }).waitFor();
  await page.keyboard.press('n');
  await page.getByRole('button', { name: 'Add a pattern' }).click();
  await page.getByLabel('words of market').fill('Skerrow, Halvey');
  await page.getByLabel('words of aim').fill('brand, sale');
  await page.getByLabel('Between parts').fill(' | ');
  const composer = page.getByRole('region', { name: 'put a name together' });
  await composer.getByRole('combobox', { name: 'market' }).fill('Skerrow');
  await page.keyboard.press('Tab');
  await page.keyboard.type('brand');
  await page.keyboard.press('Tab');
  await page.keyboard.type('ferry 27');
  await expect(composer.getByRole('status')).toHaveText('Skerrow | brand | ferry 27');
  await accessible(page);
  await page.getByRole('button', { name: 'Read them' }).click();
  const off = page.getByRole('region', { name: 'names off their pattern' });
  await expect(off.getByRole('status')).toContainText('12 are off');
  await expect(off.getByRole('row').nth(1)).toContainText('“');
  await accessible(page);
  await page.getByRole('button', { name: 'Agree', exact: true }).click();
  await expect(page.getByRole('button', { name: /revision 1, from/ })).toBeVisible();

  await test.step('many are put together at once, and a sheet to rename by is taken away', async () => {
    await composer.getByLabel('Many at once').fill('market\taim\tfree\nHalvey\tsale\tone\nMars\tsale\ttwo');
    const names = composer.getByRole('list', { name: 'names put together' });
    await expect(names.getByRole('listitem')).toHaveText([
      'Halvey | sale | one',
      '“Mars” is not one of Skerrow, Halvey',
    ]);
    await page.getByRole('button', { name: 'Read them' }).click();
    const download = page.waitForEvent('download');
    await off.getByRole('link', { name: 'CSV' }).click();
    const lines = readFileSync((await (await download).path())!, 'utf8')
      .trim()
      .split(/\r?\n/);
    expect(lines).toHaveLength(13);
  });
  await test.step('names are written as a change', async () => {
    const name = off.getByRole('textbox').first();
    await name.fill('Skerrow | brand | ferry 28');
    await accessible(page);
    await off.getByRole('button', { name: 'Draft a change that renames them' }).click();
    await expect(page.getByText(/of them names/)).toBeVisible({ timeout: 30_000 });
    await expect(page.getByRole('row', { name: /Skerrow \| brand \| ferry 28/ })).toBeVisible();
    await page.getByRole('button', { name: /Drop it/ }).click();
    await expect(page.getByText('nothing was written')).toBeVisible();
    await page.keyboard.press('1');
    await page.getByRole('navigation', { name: 'what is agreed on' }).waitFor();
    await page.keyboard.press('n');
    await off.getByRole('button', { name: 'Read them' }).waitFor();
  });
  await test.step('the parts of names stand beside them', async () => {
    await page.keyboard.press('Escape');
    await page.keyboard.press('2');
    const table = page.getByRole('treegrid');
    await expect(table.getByRole('row').nth(1)).toContainText(/northquay|\d+ values/);
    await page.getByText('parts of names').click();
    await expect(table.getByRole('columnheader', { name: 'market' })).toBeVisible();
    await accessible(page);
    await page.keyboard.press('1');
  });
  await page.getByRole('button', { name: 'Add a key' }).click();
  const says = page.getByLabel('what key_6 says', { exact: true });
  await says.fill('<campaign.part.ma');
  await expect(page.getByRole('option', { name: 'campaign.part.market' })).toBeVisible();
});
