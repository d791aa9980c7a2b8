// An adapter: an account that stands in a JSON file, spoken for by the connector protocol.
// TOKEN=secret node adapter.mjs account.json 8900
import { createServer } from 'node:http';
import { readFileSync, writeFileSync } from 'node:fs';

const [file, port] = process.argv.slice(2);
const account = JSON.parse(readFileSync(file, 'utf8')); // {id, name, nodes: [{id, parent, level, name, slots, …}]}
const done = new Map(); // by Idempotency-Key: what was answered
const keep = () => writeFileSync(file, JSON.stringify(account, null, 2));

const shown = (n) => ({ parent: null, version: 1, slots: {}, custom: {}, ...n });

/** A page of nodes: of one level behind a place, or those with these ids. */
function nodes(query) {
  const ids = query.get('ids')?.split(',');
  if (ids) return { items: account.nodes.filter((n) => ids.includes(n.id)).map(shown), next: null };
  const after = Number(query.get('after') ?? -1);
  const limit = Number(query.get('limit') ?? 500);
  const found = account.nodes
    .map((n, place) => ({ n, place }))
    .filter(({ n, place }) => n.level === query.get('level') && place > after);
  const page = found.slice(0, limit);
  return { items: page.map(({ n }) => shown(n)), next: found.length > limit ? page.at(-1).place : null };
}

/** Writes texts, each only on the version that it was meant for; a key is carried out once. */
function update(updates, key) {
  if (done.has(key)) return done.get(key);
  const results = updates.map(({ node: id, version, slot, custom, value }) => {
    const node = account.nodes.find((n) => n.id === id);
    if (!node) return { node: id, state: 'unknown', message: 'there is no such node' };
    if ((node.version ?? 1) !== version) return { node: id, state: 'stale', message: 'it has changed meanwhile' };
    const texts = slot === 'name' ? node : (node[slot ? 'slots' : 'custom'] ??= {});
    if (value === null) delete texts[slot ?? custom];
    else texts[slot ?? custom] = value;
    node.version = version + 1;
    return { node: id, state: 'done', version: node.version };
  });
  keep();
  done.set(key, { results });
  return { results };
}

createServer((request, response) => {
  let body = '';
  request.on('data', (some) => (body += some));
  request.on('end', () => {
    const { pathname, searchParams } = new URL(request.url, 'http://adapter');
    const answer = (status, json) =>
      response.writeHead(status, { 'Content-Type': 'application/json' }).end(JSON.stringify(json));
    if (request.headers.authorization !== `Bearer ${process.env.TOKEN}`)
      return answer(401, { error: 'the token is wrong' });
    const own = `/v1/accounts/${account.id}`;
    if (pathname === '/v1/accounts')
      return answer(200, {
        items: [{ id: account.id, name: account.name, nodes: account.nodes.length }],
        testClicks: false,
      });
    if (pathname === `${own}/nodes`) return answer(200, nodes(searchParams));
    if (pathname === `${own}/updates`)
      return answer(200, update(JSON.parse(body).updates, request.headers['idempotency-key']));
    return answer(404, { error: 'there is no such call' });
  });
}).listen(Number(port), '127.0.0.1', () => console.log('ready'));
