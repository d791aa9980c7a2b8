import { request } from '@playwright/test';

/**
 * Does at a platform's own desk what an agency might: a group gets a suffix of its own, an ad another landing URL, a
 * campaign another name. All on Northquay, in the account of the demo's signed-in client.
 *
 * @param {import('@playwright/test').Page} page signed in
 * @param {string} port of the stand-ins
 */
export async function workAtTheDesk(page, port) {
  const found = await page.evaluate(async () => {
    const get = async (path) => (await fetch(`/api/v1/clients/1${path}`)).json();
    const account = (await get('/accounts')).items.find((a) => a.dialect === 'northquay-search');
    const first = async (parent) =>
      (await get(`/accounts/${account.id}/rows${parent ? `?parent=${parent}` : ''}`)).rows;
    const campaigns = await first(account.root);
    const groups = await first(campaigns[0].id);
    const ads = await first((await first(campaigns[1].id))[0].id);
    return { group: groups[0], ad: ads[0], campaign: campaigns[2] };
  });
  const http = await request.newContext({ extraHTTPHeaders: { Host: `control.localhost:${port}` } });
  const edit = async (id, set) => {
    const answer = await http.post(`http://127.0.0.1:${port}/edit`, { data: { site: 'northquay', id, set } });
    if ((await answer.json()).edited !== 1) throw new Error(`${id} was not edited`);
  };
  await edit(found.group.externalId, { slots: { suffix: 'utm_source=agency&utm_medium=paid' } });
  await edit(found.ad.externalId, { slots: { landing: 'https://velmar.localhost/winter?lang=en' } });
  await edit(found.campaign.externalId, { name: `${found.campaign.name} (winter)` });
  await http.dispose();
  return found;
}
