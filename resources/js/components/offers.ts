import type { Schema } from '../api/client';

type Offer = Schema['Offer'];

const MOST = 12;

/**
 * The offers for the token that is being typed at the caret: those whose name, or what they give, has what was typed.
 * Null outside of a token.
 */
export function offersFor(
  text: string,
  caret: number,
  open: string,
  close: string,
  offers: readonly Offer[],
): { from: number; list: Offer[] } | null {
  if (open === '') return null;
  const before = text.slice(0, caret);
  const from = before.lastIndexOf(open);
  if (from < 0) return null;
  // where both marks are the same, a token is open after an odd number of them
  if (open === close ? before.split(open).length % 2 === 1 : before.indexOf(close, from + open.length) >= 0)
    return null;
  const typed = before.slice(from + open.length).toLowerCase();
  if (/[&?=#\s]/.test(typed)) return null;
  const name = (o: Offer) => o.written.slice(open.length).toLowerCase();
  const list = offers.filter((o) => name(o).startsWith(typed));
  const others = offers.filter(
    (o) => !list.includes(o) && (name(o).includes(typed) || o.gives.toLowerCase().includes(typed)),
  );
  return { from, list: [...list, ...others].slice(0, MOST) };
}

/** The text with an offer in place of what was typed of it. */
export function withOffer(text: string, from: number, caret: number, written: string): { text: string; caret: number } {
  return { text: text.slice(0, from) + written + text.slice(caret), caret: from + written.length };
}
