// Takes the pictures of docs/screenshots from a running demo: node e2e/pictures.mjs [FOLDER]
import { expect } from '@playwright/test';
import { mkdirSync } from 'node:fs';
import { open } from './browser.mjs';

const base = process.env.BASE_URL ?? 'http://127.0.0.1:8700';
const folder = process.argv[2] ?? 'docs/screenshots';
mkdirSync(folder, { recursive: true });
const { browser, context, page } = await open();
/** Takes a picture, but only of what it is said to show: all of these are in sight before it is taken and after. */
const shot = async (name, ...shown) => {
  const inSight = async () => {
    for (const what of shown) await expect(what.first(), `${name} shows ${what}`).toBeInViewport();
  };
  await page.waitForLoadState('networkidle').catch(() => {});
  await inSight();
  await page.waitForTimeout(400); // what moves comes to rest
  await page.screenshot({ path: `${folder}/${name}.png` });
  await inSight();
};

const signIn = async (at, email) => {
  await at.getByLabel('E-mail address').fill(email);
  await at.getByLabel('Password').first().fill('tide-table');
  await at.getByRole('button', { name: 'Sign in' }).click();
  await at.getByRole('treegrid').waitFor();
};

await page.goto(`${base}/velmar/accounts`);
await signIn(page, 'mara@saltmarsh.example');

await page.goto(`${base}/velmar/plan`);
const begin = page.getByRole('button', { name: 'Begin with the five UTM keys' });
await begin.or(page.getByLabel('key 1')).waitFor();
if (await begin.isVisible()) {
  await begin.click();
  await page.getByText('{term}').first().waitFor();
  await page.getByRole('button', { name: 'Save the plan' }).click();
  await page.getByText('revision 1').first().waitFor();
  await page.waitForTimeout(4000);
}
await page.getByRole('button', { name: 'Another plan for some ads' }).click();
await page.getByRole('button', { name: /^without / }).click();
await page.getByRole('textbox', { name: 'title', exact: true }).fill('Offers');
await page.getByRole('combobox', { name: 'for campaigns of type' }).click();
await page.getByRole('option', { name: 'listing', exact: true }).click();
await page.keyboard.press('Escape');
await page.getByLabel('what utm_source says', { exact: true }).fill('north_offers');
await page.getByRole('cell', { name: /^north_offers/ }).waitFor();
await page.getByRole('tab', { name: /^everything else/ }).click();
await page.getByText('{term}').first().waitFor();
await shot(
  'plan',
  page.getByLabel('key 1'),
  page.getByText('{term}'),
  page.getByRole('tab', { name: /^Offers \d+ ads$/ }),
);
await page.getByRole('button', { name: 'Undo all' }).click();

await page.goto(`${base}/velmar/accounts`);
await page.getByRole('treegrid').focus();
await page.getByTitle('Skerrow Foot & Car').first().waitFor();
await page.keyboard.press('ArrowRight');
await page.getByTitle('Skerrow – Foot passengers').first().waitFor();
await page.keyboard.press('ArrowDown');
await page.keyboard.press('ArrowRight');
await page.getByTitle('Skerrow by boat A').first().waitFor();
await page.keyboard.press('ArrowDown');
await shot('accounts', page.getByTitle('Skerrow by boat A'), page.getByRole('img', { name: 'broken' }));

await page.keyboard.press('Enter');
await page.getByTestId('ribbon').waitFor();
await shot('trace', page.getByTestId('ribbon'), page.getByText('utm_source'));
await page.goto(`${base}/velmar/accounts`);
await page.getByLabel('filter by name or number').fill('Tarnsay by boat');
await page.getByTitle('Tarnsay by boat A').first().waitFor();
await page.keyboard.press('Enter');
await page.keyboard.press('Enter');
await page.getByTestId('ribbon').waitFor();
await page.getByRole('button', { name: 'dark colours' }).click();
await shot('trace-hop-dark', page.getByTestId('ribbon'), page.getByRole('button', { name: 'light colours' }));
await page.getByRole('button', { name: 'light colours' }).click();

await page.goto(`${base}/velmar/platforms`);
await page.getByText('How a click is put together').waitFor();
await shot('platforms', page.getByText('How a click is put together'));
await page.goto(`${base}/velmar/platforms/reedrail`);
await page.getByText('How a click is put together').waitFor();
await page.keyboard.press('w');
const strata = page.getByRole('region', { name: 'levels and slots, to be drawn' });
await strata.waitFor();
await page.getByRole('button', { name: 'landing URL on Campaign' }).click();
await page.getByLabel('A real click’s URL').fill('https://shop.example/page?lang=en&rrcid=8Qx&utm_source=my-reedrail');
await page.getByRole('button', { name: 'Hold it against the rules' }).click();
await page.getByText(/It departs here/).waitFor();
await shot('platform-written', strata, page.getByText(/It departs here/));

const status = (of, words, timeout = 90_000) =>
  of.getByTestId('status').getByText(words, { exact: true }).waitFor({ timeout });

await page.goto(`${base}/velmar/changes`);
await page
  .getByText(/No change yet|The ledger/)
  .first()
  .waitFor();
if (await page.getByText('No change yet').isVisible()) {
  await page.goto(`${base}/velmar/accounts`);
  await page.getByRole('button', { name: 'Bring in line' }).click();
  await page.getByLabel('Why').fill('One agreement for all island routes from this season on.');
  await page.getByRole('button', { name: 'Work it out' }).click();
  await page.getByRole('button', { name: /^Try it/ }).waitFor({ timeout: 60_000 });
  await shot('change', page.getByRole('button', { name: /^Try it/ }), page.getByLabel('after, click URL'));
  await page.keyboard.press('a');
  await status(page, 'tried');
  await page.getByTestId('test-click').first().waitFor();
  await page.keyboard.press('a');
  await status(page, 'applied and read back');
  await page.getByTestId('status').getByText('applied and read back').first().waitFor();
  await page.keyboard.press('l');
  await page.getByText('One agreement for all island routes').first().waitFor();
  await shot('ledger', page.getByText('One agreement for all island routes'));
}

await page.goto(`${base}/velmar/accounts`);
await page.getByRole('button', { name: 'account', exact: true }).click();
await page.getByRole('menuitem', { name: /Hearthring/ }).click();
await page.getByRole('treegrid').focus();
await page
  .getByText(/broken ·/)
  .first()
  .waitFor();
await page.keyboard.press('e');
await page.getByText('set a parameter').click();
await page.getByLabel('Key').fill('season');
await page.getByLabel(/^Value/).fill('winter');
await page.getByRole('dialog').getByText('season=winter').first().waitFor();
await shot('edit', page.getByRole('dialog').getByText('season=winter'));
await page.keyboard.press('Escape');

await page.keyboard.press('c');
await page.getByRole('combobox', { name: 'About' }).click();
await page.getByRole('option', { name: /every account of Velmar/ }).click();
await page.getByRole('button', { name: 'Work it out' }).click();
const together = page.getByRole('region', { name: 'drafted together' });
await together.getByText('worked out').first().waitFor({ timeout: 60_000 });
await together.getByText('being worked out').first().waitFor({ state: 'detached', timeout: 60_000 });
await page.keyboard.press('A');
await together.getByText('tried').first().waitFor({ timeout: 60_000 });
await together.getByRole('link', { name: /by the Fire/ }).click();
await status(page, 'tried');

const live = await context.newPage();
const ads = `http://northquay.localhost:${process.env.STANDINS_PORT ?? 8750}/ads`;
for (const words of ['Skerrow', 'Orrin', 'Tarnsay', 'Halvey from', 'Orrin return', 'Skerrow']) {
  await live.goto(`${ads}?q=${encodeURIComponent(words)}`);
  await live.locator('a[data-ad]').first().click();
  await live.waitForLoadState('networkidle');
}
await page.goto(`${base}/velmar/arrivals`);
await page.locator('[data-arrival]').nth(4).waitFor();
await shot('arrivals', page.locator('[data-arrival]').nth(4));

await page.goto(`${base}/velmar/feeds`);
await page.getByText('takes 5,000 of 5,000').first().waitFor();
await shot('feeds', page.getByText('Paid search'), page.getByText('have no link there'));

await page.goto(`${base}/velmar/links`);
const bench = page.getByRole('region', { name: 'links in the making' });
const cell = (column) => bench.locator(`input[aria-label="${column} of row 1"]`);
await cell('title').fill('Winter letter');
await cell('landing').fill('https://velmar.example/tickets?lang=en');
await cell('utm_source').fill('letter | pier-post');
await cell('utm_medium').fill('email');
await cell('utm_campaign').fill('Winter');
await bench.getByText('&utm_source=pier-post').waitFor();
await page
  .getByRole('row', { name: /Letter of .*, cabins/ })
  .first()
  .click();
await page.getByRole('img', { name: /code that leads to/ }).waitFor();
await shot('links', bench.getByText('write winter'), page.getByRole('img', { name: /code that leads to/ }));

await page.goto(`${base}/velmar/people`);
await page.getByText('Who works on').waitFor();
await shot('people', page.getByRole('row', { name: /Odile Ferrant/ }));

await page.goto(`${base}/velmar/accounts`);
await page.getByTitle('Skerrow Foot & Car').first().waitFor();
await page.locator('input[type=file]').setInputFiles('tests/data/harbour-ads.csv');
await page.getByLabel('Platform').first().click();
await page.getByRole('option', { name: 'Northquay Search' }).click();
await page.getByLabel('Its number').fill('NQ-9001');
await page.getByLabel('Its name').fill('Harbour Tours');
await page.keyboard.press('Enter');
await page.getByRole('button', { name: /Read every row/ }).click();
await page.getByText('numbers that a spreadsheet damaged').click();
await page.getByText('is what a spreadsheet makes of a long number').waitFor();
await page.getByLabel('columns of harbour-ads').evaluate((sheet) => sheet.scrollTo(720, 0));
await shot('sheets', page.getByText('makes of a long number'), page.getByRole('button', { name: /^Bring \d+ in/ }));
await page.getByRole('button', { name: 'Give these sheets up' }).click();
await page.getByRole('treegrid').waitFor();

await page.goto(`${base}/velmar/plan/words`);
await page.getByRole('tab', { name: /utm_medium/ }).click();
await page.getByRole('button', { name: 'Paste from a sheet' }).click();
await page
  .getByLabel('Words, and what they mean')
  .fill('cpc\tsearch ads, paid by the click\npaid_social\tads in social networks\nnative\tads among articles\nppc');
await page.getByRole('button', { name: 'Take them over' }).click();
const old = page.getByRole('row').filter({ has: page.locator('input[value="ppc"]') });
await old.getByRole('button', { name: 'retire' }).click();
await page.getByRole('combobox', { name: 'What takes its place' }).click();
await page.getByRole('option', { name: 'cpc', exact: true }).click();
await page.getByRole('button', { name: 'Retire it' }).click();
await shot('words', page.getByText('retired since'), page.getByRole('button', { name: 'Agree', exact: true }));

await page.goto(`${base}/velmar/plan/channels`);
await page.getByLabel('utm_source', { exact: true }).fill('hearthring');
await page.getByLabel('utm_medium', { exact: true }).fill('paid_social');
await page.getByRole('button', { name: 'Add a rule' }).click();
await page.getByLabel('Channel', { exact: true }).fill('Ferries, paid');
await page.getByLabel('test 1 is one of').fill('cpc');
await page.getByRole('button', { name: 'close', exact: true }).click();
await page.mouse.move(0, 0);
await shot('channels', page.getByTestId('counted'), page.getByRole('img', { name: 'bands from channel to channel' }));
await page.goto(`${base}/velmar/results`);
const lines = page.getByRole('treegrid', { name: 'lines of the answer' });
await lines.getByRole('row', { name: /Paid search/ }).waitFor();
await lines.focus();
await page.keyboard.press('ArrowRight');
await lines.locator('[aria-level="2"]').first().waitFor();
await shot('results', lines.locator('[aria-level="2"]'), page.getByText('these days'), page.getByText('return'));

await page.goto(`${base}/velmar/results/balance`);
await page.getByRole('grid', { name: 'clicks by platform' }).getByRole('button', { name: 'Northquay Search' }).click();
const accounts = page.getByRole('grid', { name: 'clicks by account' });
await accounts.waitFor();
await page.getByText('without keys').first().click();
await page.mouse.move(0, 0);
await shot('stair', accounts, page.getByText('without keys'), page.getByRole('button', { name: /^Bring .* in line/ }));

await page.goto(`${base}/velmar/audit`);
await page.getByLabel('one cause in full').getByRole('listitem').first().waitFor();
await shot('audit', page.getByRole('grid'), page.getByLabel('one cause in full').getByRole('listitem'));

await browser.close();
