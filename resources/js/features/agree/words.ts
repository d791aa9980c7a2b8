/** vestigon.words/1, as it is edited. */
export interface Word {
  word: string;
  means?: string;
  retired?: { since: string; use?: string };
}

export interface Words {
  format: 'vestigon.words/1';
  keys: Record<string, Word[]>;
}

/** Words and meanings out of a spreadsheet: a row each, a tab between. Those that are there get their meaning. */
export function pasted(text: string, words: readonly Word[]): Word[] {
  const next = words.map((w) => ({ ...w }));
  for (const line of text.split(/\r?\n/)) {
    const [word = '', means = ''] = line.split('\t').map((cell) => cell.trim());
    if (word === '') continue;
    const known = next.find((w) => w.word === word);
    if (!known) next.push(means === '' ? { word } : { word, means });
    else if (means !== '') known.means = means;
  }
  return next;
}

/** What pasting would do: words that are new, and those that mean something else then. */
export function pastedOver(text: string, words: readonly Word[]): { added: string[]; other: string[] } {
  const before = new Map(words.map((w) => [w.word, w.means ?? '']));
  const next = pasted(text, words);
  return {
    added: next.filter((w) => !before.has(w.word)).map((w) => w.word),
    other: next
      .filter((w) => (before.get(w.word) ?? '') !== '' && before.get(w.word) !== (w.means ?? ''))
      .map((w) => `${w.word}: “${before.get(w.word)}” becomes “${w.means ?? ''}”`),
  };
}

/** The words of a key, otherwise. */
export const withWords = (words: Words, key: string, list: Word[]): Words => ({
  ...words,
  keys: { ...words.keys, [key]: list },
});

export const isInUse = (word: Word): boolean => word.retired === undefined;
