import type { Row } from './useTree';

/** A row as tab-separated cells. A cell that a spreadsheet would take for a formula gets an apostrophe first. */
export function asCells(row: Row, keys: readonly string[]): string {
  const sends = row.isAd
    ? row.ribbon.map((s) => s.text).join('')
    : row.says.map((s) => `${s.slot}: ${s.text}`).join(' ');
  return [row.name, row.externalId, row.state ?? '', sends, ...keys.map((k) => row.arrival[k] ?? '')]
    .map(cell)
    .join('\t');
}

function cell(text: string): string {
  const flat = text.replace(/[\t\r\n]+/g, ' ');
  return /^[=+\-@]/.test(flat) ? `'${flat}` : flat;
}
