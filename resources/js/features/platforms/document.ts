import type { Schema } from '../../api/client';

export type Document = Schema['DialectDocument'];
export type Token = Schema['DialectToken'];
export type Slot = Schema['DialectSlot'];

/** A copy under another id and title, to write one's own from. */
export function anotherName(yaml: string): string {
  return yaml
    .replace(/^id: ['"]?([^'"\n]+)['"]?$/m, 'id: my-$1')
    .replace(/^title: ['"]?([^'"\n]+)['"]?$/m, "title: 'My $1'");
}

/** A token as it is typed. */
export function written(document: Document, token: Token): string {
  const open = document.syntax?.open ?? '';
  const close = document.syntax?.close ?? '';
  return token.kind === 'when' ? `${open}${token.name}:…${close}` : `${open}${token.name}${close}`;
}

/** What a token gives, in words. */
export function gives(token: Token): string {
  if (token.kind === 'landing') {
    return token.encode === 0
      ? 'the landing URL as it is'
      : typeof token.encode === 'number'
        ? `the landing URL, encoded ${times(token.encode)}`
        : 'the landing URL; encoded unless the template begins with it';
  }
  if (token.kind === 'when') return `its text, if ${token.field} is ${(token.is ?? []).join(' or ')}`;
  const spelled = token.values
    ? `, spelled ${Object.entries(token.values)
        .map(([value, as]) => `${value} → ${as}`)
        .join(', ')}`
    : '';
  const depth =
    token.encode === 0
      ? ', not encoded'
      : typeof token.encode === 'number' && token.encode > 1
        ? `, encoded ${times(token.encode)}`
        : '';
  return `${token.field}${spelled}${depth}`;
}

function times(n: number): string {
  return n === 1 ? 'once' : n === 2 ? 'twice' : `${n} times`;
}

/** For which campaign types a slot counts on a level: all, some, or none. */
export function typesAt(document: Document, slot: Slot, level: string): string[] | 'all' | 'none' {
  if (!slot.levels.includes(level)) return 'none';
  const reads = document.campaignTypes.filter(
    (type) => !(slot.ignoredFor ?? []).includes(type) && (slot.levelsFor?.[type] ?? slot.levels).includes(level),
  );
  return reads.length === document.campaignTypes.length ? 'all' : reads;
}

/** Texts to begin a trial with: a landing page, and what the platform can carry behind it. */
export function firstTexts(document: Document): Record<string, Record<string, string>> {
  const values = document.tokens.filter((t) => t.kind === 'value').slice(0, 3);
  const query = [
    `utm_source=${document.id.split('-')[0]}`,
    ...values.map((t) => `${(t.field ?? t.name).replace('.', '_')}=${written(document, t)}`),
  ].join('&');
  const landing = document.tokens.find((t) => t.kind === 'landing');
  const ad = document.levels.at(-1)!.id;
  const has = (kind: Slot['kind']) => document.slots.find((s) => s.kind === kind);
  const texts: Record<string, Record<string, string>> = { [ad]: { landing: 'https://shop.example/page?lang=en' } };
  const carrier = has('suffix') ?? (landing ? has('template') : undefined);
  if (carrier) {
    const level = carrier.levels[0]!;
    texts[level] = {
      ...texts[level],
      [carrier.kind]: carrier.kind === 'suffix' ? query : `${written(document, landing!)}?${query}`,
    };
  } else if (has('landing')?.tokens) {
    texts[ad] = { landing: `https://shop.example/page?${query}` };
  }
  return texts;
}

/** The click's fields that some token looks at. */
export function clickFields(document: Document): string[] {
  const owned = new Set(document.levels.map((l) => l.role));
  const fields = document.tokens
    .map((t) => t.field)
    .filter((f): f is string => f !== undefined && !owned.has(f.split('.')[0]!));
  const tags = (document.autoTags?.tags ?? [])
    .map((t) => t.field)
    .filter((f): f is string => f !== undefined && !owned.has(f.split('.')[0]!));
  return [...new Set([...fields, ...tags, ...(document.clickId ? ['click.id'] : [])])];
}
