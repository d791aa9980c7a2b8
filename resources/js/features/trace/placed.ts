import { written, type Document, type Slot } from '../platforms/document';

/** Where a text that somebody has pasted belongs: its slot, and the level that it is tried on. */
export interface Placed {
  level: string;
  slot: Slot['kind'];
}

/**
 * A web address is a landing URL, unless it holds the platform's landing token; what holds that is a template; the rest
 * is a suffix. Null: the platform has no slot for it.
 */
export function placed(document: Document, text: string): Placed | null {
  const landing = document.tokens.filter((t) => t.kind === 'landing').map((t) => written(document, t));
  const holdsLanding = landing.some((token) => text.includes(token));
  const wanted: Slot['kind'][] = holdsLanding
    ? ['template']
    : /^https?:\/\//i.test(text.trim())
      ? ['landing', 'template']
      : ['suffix', 'template'];
  for (const kind of wanted) {
    const slot = document.slots.find((s) => s.kind === kind);
    const level = kind === 'landing' ? slot?.levels.at(-1) : slot?.levels[0];
    if (level) return { level, slot: kind };
  }
  return null;
}
