// Reads cases as JSON on standard input and answers with what the WHATWG URL Standard says, by Node's own implementation.
import { readFileSync } from 'node:fs';

const { read, serialize, join } = JSON.parse(readFileSync(0, 'utf8'));
process.stdout.write(
  JSON.stringify({
    // through a URL, as a browser does: URLSearchParams alone garbles raw characters beside broken percent signs in this Node
    read: read.map((query) => [...new URL(`https://v.example/?${query}#`).searchParams]),
    serialize: serialize.map((pair) => new URLSearchParams([pair]).toString()),
    join: join.map(([url, query]) => {
      const joined = new URL(url);
      joined.search = joined.search === '' ? query : `${joined.search}&${query}`;
      return { pairs: [...joined.searchParams], hash: joined.hash, page: joined.origin + joined.pathname };
    }),
  }),
);
