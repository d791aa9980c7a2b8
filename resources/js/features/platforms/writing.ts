import { parseDocument } from 'yaml';
import type { Document, Slot, Token } from './document';

/** Changes a platform's document, and keeps all else of its text as it was written, remarks too. */
export function written(text: string, path: readonly (string | number)[], value: unknown): string {
  const document = parseDocument(text);
  if (value === undefined) document.deleteIn(path);
  else document.setIn(path, document.createNode(value));
  return document.toString({ lineWidth: 0 });
}

/** The document as it stands in a text, as far as it can be drawn; null: it can't. */
export function drawable(text: string): Document | null {
  const document = parseDocument(text);
  if (document.errors.length > 0) return null;
  const d = document.toJS() as Partial<Document> | null;
  const lists = [d?.levels, d?.slots, d?.tokens];
  if (!d || !lists.every(Array.isArray) || typeof d.assembly !== 'object') return null;
  return { campaignTypes: [], delivery: ['sequence'], ...d } as Document;
}

/** A slot on one level more, or one less; a slot on no level is none. */
export function toggled(document: Document, kind: Slot['kind'], level: string): Slot[] {
  const order = document.levels.map((l) => l.id);
  const slot = document.slots.find((s) => s.kind === kind);
  if (!slot) return [...document.slots, { kind, levels: [level], inherit: 'nearest' }];
  const levels = slot.levels.includes(level)
    ? slot.levels.filter((l) => l !== level)
    : order.filter((l) => l === level || slot.levels.includes(l));
  return levels.length === 0
    ? document.slots.filter((s) => s !== slot)
    : document.slots.map((s) => (s === slot ? { ...s, levels } : s));
}

/** A level taken out, and out of all slots; a slot that was on it alone goes with it. */
export function withoutLevel(document: Document, id: string): Pick<Document, 'levels' | 'slots'> {
  return {
    levels: document.levels.filter((l) => l.id !== id),
    slots: document.slots
      .map((s) => ({ ...s, levels: s.levels.filter((l) => l !== id) }))
      .filter((s) => s.levels.length > 0),
  };
}

/** An id for a level of this name, that none has yet. */
export function newId(label: string, taken: readonly string[]): string {
  const id =
    label
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-|-$/g, '') || 'level';
  for (let n = 1; ; n++) {
    const tried = n === 1 ? id : `${id}-${n}`;
    if (!taken.includes(tried)) return tried;
  }
}

/** A catalogue with tokens put in: one of the same name is replaced, others come last. */
export function merged(tokens: readonly Token[], more: readonly Token[]): Token[] {
  const names = new Map(more.map((t) => [t.name, t]));
  const kept = tokens.map((t) => {
    const instead = names.get(t.name);
    names.delete(t.name);
    return instead ? { ...t, ...instead } : t;
  });
  return [...kept, ...names.values()];
}
