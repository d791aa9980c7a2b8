// The script that a first visit loads, compressed: the entry and all that it imports at once.
import { readFileSync } from 'node:fs';
import { gzipSync } from 'node:zlib';

const manifest = JSON.parse(readFileSync('public/build/manifest.json', 'utf8'));
const seen = new Set();
const visit = (key) => {
  if (seen.has(key)) return;
  seen.add(key);
  manifest[key].imports?.forEach(visit);
};
visit('resources/js/main.tsx');
const bytes = [...seen].reduce((sum, key) => sum + gzipSync(readFileSync(`public/build/${manifest[key].file}`)).length, 0);
const met = bytes < 350 * 1024;
console.log(`${'first JavaScript, gzipped, kB'.padEnd(74)} ${(bytes / 1024).toFixed(1).padStart(8)}   ${'below 350'.padEnd(14)} ${met ? 'met' : 'MISSED'}`);
process.exit(met ? 0 : 1);
