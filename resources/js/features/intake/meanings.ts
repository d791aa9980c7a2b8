import type { Schema } from '../../api/client';

export type Intake = Schema['Intake'];
export type CellWords = Schema['CellWords'];
export type Words = Schema['ColumnWords'];
export type Table = Schema['IntakeTable'];
export type Column = Schema['IntakeColumn'];

/** What a column can be about: how it is tinted, and what it counts as. */
export type About = 'id' | 'name' | 'fact' | 'template' | 'suffix' | 'landing' | 'custom' | 'figure' | 'nothing';

export const NOTHING = 'ignore';

const OWN: [string, string][] = [
  ['id', 'number'],
  ['name', 'name'],
  ['type', 'type'],
  ['standing', 'runs or not'],
  ['publishedName', 'name when published'],
];

const TEXTS: [string, string][] = [
  ['slot.landing', 'landing page'],
  ['slot.template', 'tracking template'],
  ['slot.suffix', 'URL suffix'],
  ['custom', 'all custom parameters'],
];

const OTHERS: [string, string][] = [
  ['keyword.text', 'keyword'],
  ['keyword.match', 'keyword’s match'],
  ['day', 'day'],
  ['impressions', 'impressions'],
  ['clicks', 'clicks'],
  ['cost', 'cost'],
  ['conversions', 'conversions'],
  ['value', 'value'],
];

/** A heading as the name of a custom parameter or attribute. */
export const nameOf = (heading: string): string =>
  heading
    .trim()
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, '_')
    .replace(/^_+|_+$/g, '') || 'x';

export function about(means: string): About {
  if (means === NOTHING) return 'nothing';
  if (means.startsWith('slot.')) return means.slice(5) as About;
  if (means === 'custom' || means.startsWith('custom.')) return 'custom';
  if (means === 'id' || means.endsWith('.id')) return 'id';
  if (means === 'name' || means.endsWith('.name')) return 'name';
  return OTHERS.some(([m]) => m === means && !m.startsWith('keyword')) ? 'figure' : 'fact';
}

export interface Choice {
  group: string;
  items: { value: string; label: string }[];
}

/** All that a column of a table can mean, in words. */
export function choices(
  words: Words,
  table: Pick<Table, 'level'>,
  column: Pick<Column, 'heading' | 'means'>,
): Choice[] {
  const own = words.levels.find((l) => l.id === table.level);
  const above = words.levels.filter((l) => !own || l.depth < own.depth);
  const name = nameOf(column.heading);
  const special = [`custom.${name}`, `attribute.${name}`];
  if (/^(custom|attribute)\./.test(column.means) && !special.includes(column.means)) special.push(column.means);
  const kinds: [string, string][] = [
    ['id', 'number'],
    ['name', 'name'],
    ['type', 'type'],
  ];
  return [
    { group: '', items: [{ value: NOTHING, label: 'nothing: leave it out' }] },
    {
      group: own ? `${own.label}, the row’s own` : 'what the row is about',
      items: OWN.map(([value, label]) => ({ value, label: own ? `${own.label}: ${label}` : `its ${label}` })),
    },
    {
      group: 'texts',
      items: [
        ...TEXTS.map(([value, label]) => ({ value, label })),
        ...special.map((value) => ({ value, label: worded(value) })),
      ],
    },
    ...above.map((level) => ({
      group: `the ${level.label} above`,
      items: kinds.map(([kind, label]) => ({ value: `${level.id}.${kind}`, label: `${level.label}: ${label}` })),
    })),
    { group: 'what the account switches', items: switches(words) },
    { group: 'others', items: OTHERS.map(([value, label]) => ({ value, label })) },
  ];
}

const SWITCHES: Record<string, string> = {
  clickId: 'click ID on or off',
  autoTags: 'automatic tags',
  delivery: 'how clicks are delivered',
};

const switches = (words: Words) =>
  Object.keys(words.switches).map((name) => ({ value: `setting.${name}`, label: SWITCHES[name] ?? name }));

function worded(value: string): string {
  const [kind, name] = [value.slice(0, value.indexOf('.')), value.slice(value.indexOf('.') + 1)];
  return kind === 'custom' ? `custom parameter “${name}”` : `attribute “${name}”`;
}

/** What words of a column can say; null: its cells are taken as they are. */
export function wordsFor(words: Words, means: string): string[] | null {
  if (means === 'standing') return ['on', 'paused', 'gone'];
  if (means === 'keyword.match') return ['exact', 'phrase', 'broad'];
  if (means === 'type' || means.endsWith('.type')) return words.types;
  if (means.startsWith('setting.')) return words.switches[means.slice(8)] ?? [];
  return null;
}

/** The words that a column still needs a meaning for. */
export const openWords = (words: Words, column: Column): string[] => {
  const known = wordsFor(words, column.means);
  return known === null ? [] : column.asked.filter((w) => !(w in (column.values ?? {})) && !known.includes(w));
};

/** Is there something in the table that only a person can say? */
export const isOpen = (words: Words, table: Table): boolean =>
  table.use && table.columns.some((c) => openWords(words, c).length > 0);
