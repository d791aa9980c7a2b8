import { Button, Popover, Textarea } from '@mantine/core';
import { useState } from 'react';
import type { Schema } from '../../api/client';
import { num } from '../../lib/numbers';
import { Retire } from './Retire';
import { isInUse, pasted, pastedOver, withWords, type Word, type Words } from './words';
import css from './agree.module.css';

interface Props {
  name: string;
  words: Words;
  used: readonly Schema['UsedWord'][];
  today: string;
  onChange?: (words: Words) => void;
}

/** The words of one key: typed where they stand, with what arrives beside. */
export function KeyWords({ name, words, used, today, onChange }: Props) {
  const [retiring, setRetiring] = useState<string | null>(null);
  const list = words.keys[name] ?? [];
  const set = (next: Word[]) => onChange?.(withWords(words, name, next));
  const change = (at: number, to: Partial<Word>) => set(list.map((w, i) => (i === at ? { ...w, ...to } : w)));
  const of = new Map(used.map((u) => [u.word, u]));
  const most = Math.max(1, ...used.map((u) => u.arrivals));
  const strangers = used.filter((u) => !list.some((w) => w.word === u.word));
  return (
    <section className={css.list} aria-label={`words of ${name}`}>
      <table className={css.table}>
        <thead>
          <tr>
            <th scope="col">word</th>
            <th scope="col">means</th>
            <th scope="col">arrived, 90 days</th>
            <th scope="col">in the plan</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {list.map((word, at) => (
            <tr key={at} data-retired={!isInUse(word) || undefined}>
              <td>
                <input
                  className={`${css.input} mono`}
                  aria-label={`word ${at + 1}`}
                  value={word.word}
                  readOnly={!onChange}
                  spellCheck={false}
                  onChange={(e) => change(at, { word: e.target.value })}
                />
              </td>
              <td>
                {word.retired ? (
                  <span className={css.retired}>
                    retired since {word.retired.since}
                    {word.retired.use && (
                      <>
                        ; use <b className="mono">{word.retired.use}</b>
                      </>
                    )}
                  </span>
                ) : (
                  <input
                    className={css.input}
                    aria-label={`what ${word.word} means`}
                    placeholder="in one line"
                    value={word.means ?? ''}
                    readOnly={!onChange}
                    onChange={(e) => change(at, { means: e.target.value })}
                  />
                )}
              </td>
              <Arrived n={of.get(word.word)?.arrivals ?? 0} most={most} />
              <td className="quiet">{of.get(word.word)?.plan ? 'yes' : ''}</td>
              <td>
                <div className={css.acts}>
                  {onChange && (
                    <>
                      {word.retired ? (
                        <Button size="compact-xs" variant="subtle" onClick={() => change(at, { retired: undefined })}>
                          use again
                        </Button>
                      ) : (
                        <Button size="compact-xs" variant="subtle" onClick={() => setRetiring(word.word)}>
                          retire
                        </Button>
                      )}
                      {!of.get(word.word)?.arrivals && (
                        <Button
                          size="compact-xs"
                          variant="subtle"
                          color="gray"
                          aria-label={`take ${word.word} out`}
                          onClick={() => set(list.filter((_, i) => i !== at))}
                        >
                          out
                        </Button>
                      )}
                    </>
                  )}
                </div>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {onChange && (
        <div className={css.add}>
          <Button size="compact-xs" variant="subtle" onClick={() => set([...list, { word: 'new_word' }])}>
            Add a word
          </Button>
          <FromSheet words={list} onPasted={(text) => set(pasted(text, list))} />
          <span className="quiet">{list.length === 0 && 'Without words, anything is allowed.'}</span>
        </div>
      )}
      {strangers.length > 0 && (
        <>
          <h2>{list.length === 0 ? 'What arrives' : 'Arrives, and is not agreed on'}</h2>
          <table className={css.table} aria-label="words that are not agreed on">
            <tbody>
              {strangers.map((u) => (
                <tr key={u.word}>
                  <td className="mono">{u.word}</td>
                  <td className="quiet">{list.length > 0 && u.use && `${u.use} is meant, it seems`}</td>
                  <Arrived n={u.arrivals} most={most} />
                  <td />
                  <td>
                    <div className={css.acts}>
                      {onChange && (
                        <Button
                          size="compact-xs"
                          variant="subtle"
                          onClick={() => set([...list, { word: u.word }])}
                          aria-label={`allow ${u.word}`}
                        >
                          allow it
                        </Button>
                      )}
                      {onChange && u.use && list.length > 0 && (
                        <Button
                          size="compact-xs"
                          variant="subtle"
                          onClick={() => set([...list, { word: u.word, retired: { since: today, use: u.use! } }])}
                        >
                          say {u.use} for it
                        </Button>
                      )}
                    </div>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </>
      )}
      {retiring !== null && (
        <Retire
          name={name}
          word={retiring}
          others={list.filter((w) => isInUse(w) && w.word !== retiring).map((w) => w.word)}
          today={today}
          onRetire={(retired) => {
            set(list.map((w) => (w.word === retiring ? { ...w, retired } : w)));
            setRetiring(null);
          }}
          onClose={() => setRetiring(null)}
        />
      )}
    </section>
  );
}

function Arrived({ n, most }: { n: number; most: number }) {
  return (
    <td className={css.arrived}>
      <span style={{ width: `${(n / most) * 70}px` }} />
      {n > 0 && num(n)}
    </td>
  );
}

function FromSheet({ words, onPasted }: { words: readonly Word[]; onPasted: (text: string) => void }) {
  const [open, setOpen] = useState(false);
  const [text, setText] = useState('');
  const { added, other } = pastedOver(text, words);
  return (
    <Popover opened={open} onChange={setOpen} position="bottom-start" width={360} trapFocus withinPortal>
      <Popover.Target>
        <Button size="compact-xs" variant="subtle" onClick={() => setOpen(!open)}>
          Paste from a sheet
        </Button>
      </Popover.Target>
      <Popover.Dropdown p="sm">
        <Textarea
          size="xs"
          label="Words, and what they mean"
          description="Two columns of a spreadsheet, or one."
          rows={6}
          value={text}
          onChange={(e) => setText(e.target.value)}
          data-autofocus
        />
        {text.trim() !== '' && (
          <p className={css.pastedOver} role="status">
            {added.length === 0 ? 'No word is new.' : `${num(added.length)} new.`}
            {other.map((one) => (
              <span key={one}>{one}</span>
            ))}
          </p>
        )}
        <Button
          size="xs"
          mt={8}
          disabled={text.trim() === ''}
          onClick={() => {
            onPasted(text);
            setText('');
            setOpen(false);
          }}
        >
          Take them over
        </Button>
      </Popover.Dropdown>
    </Popover>
  );
}
