// Writes redirector/programs.php: how programs name themselves (the open list of the npm package crawler-user-agents,
// MIT), so that a name is found by the four characters that it begins with.
import { readFileSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';

const list = createRequire(import.meta.url)('crawler-user-agents');
const special = /(?<!\\)[\^$[\]()*+?|.{}]|\\[a-zA-Z]/;
const literal = (pattern) => (special.test(pattern) ? null : pattern.replace(/\\(.)/g, '$1'));
const starts = new Map();
const others = [];
for (const { pattern } of list) {
  const text = literal(pattern);
  if (text === null || text.length < 4) others.push(pattern.replaceAll('~', '\\~'));
  else starts.set(text.slice(0, 4), [...(starts.get(text.slice(0, 4)) ?? []), text]);
}
const quoted = (text) => `'${text.replace(/[\\']/g, '\\$&')}'`;
const about = new URL('../node_modules/crawler-user-agents/package.json', import.meta.url);
const { version } = JSON.parse(readFileSync(about));
writeFileSync(
  new URL('../redirector/programs.php', import.meta.url),
  `<?php\n\n// from crawler-user-agents ${version} by bin/programs.mjs\nreturn [\n    'starts' => [\n${[...starts]
    .map(([start, texts]) => `        ${quoted(start)} => [${texts.map(quoted).join(', ')}],\n`)
    .join('')}    ],\n    'others' => ${quoted(`~${others.join('|')}~`)},\n];\n`,
);
