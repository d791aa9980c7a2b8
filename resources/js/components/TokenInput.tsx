import { useId, useRef, useState } from 'react';
import type { Schema } from '../api/client';
import { offersFor, withOffer } from './offers';
import css from './strata.module.css';

type Offer = Schema['Offer'];

interface Props {
  text: string;
  label: string;
  marks?: { open: string; close: string };
  offers: readonly Offer[];
  onChange: (text: string) => void;
  onEnd: () => void;
}

/** A text for a slot: as its opening mark is typed, the tokens that work there are offered. */
export function TokenInput({ text, label, marks, offers, onChange, onEnd }: Props) {
  const [value, setValue] = useState(text);
  const [caret, setCaret] = useState<number | null>(text.length);
  const [at, setAt] = useState(0);
  const input = useRef<HTMLInputElement>(null);
  const id = useId();
  const found = marks && caret !== null ? offersFor(value, caret, marks.open, marks.close, offers) : null;
  const list = found?.list ?? [];
  const chosen = list[Math.min(at, list.length - 1)];
  const put = (next: string, to: number) => {
    setValue(next);
    setCaret(to);
    setAt(0);
    onChange(next);
    requestAnimationFrame(() => input.current?.setSelectionRange(to, to));
  };
  const take = (offer: Offer) => {
    if (!found) return;
    const next = withOffer(value, found.from, caret ?? value.length, offer.written);
    put(next.text, next.caret);
  };
  const offerAll = () =>
    marks &&
    marks.open !== '' &&
    caret !== null &&
    put(value.slice(0, caret) + marks.open + value.slice(caret), caret + marks.open.length);
  return (
    <span className={css.tokenInput}>
      <input
        ref={input}
        className={css.input}
        role="combobox"
        aria-label={label}
        aria-expanded={list.length > 0}
        aria-controls={`${id}-list`}
        aria-activedescendant={chosen ? `${id}-${list.indexOf(chosen)}` : undefined}
        aria-autocomplete="list"
        autoFocus
        autoComplete="off"
        spellCheck={false}
        value={value}
        onChange={(e) => {
          setValue(e.target.value);
          setCaret(e.target.selectionStart);
          setAt(0);
          onChange(e.target.value);
        }}
        onSelect={(e) => setCaret(e.currentTarget.selectionStart)}
        onBlur={onEnd}
        onKeyDown={(e) => {
          if (list.length > 0 && (e.key === 'ArrowDown' || e.key === 'ArrowUp')) {
            e.preventDefault();
            setAt(
              (before) =>
                (Math.min(before, list.length - 1) + (e.key === 'ArrowDown' ? 1 : list.length - 1)) % list.length,
            );
          } else if (chosen && (e.key === 'Enter' || e.key === 'Tab')) {
            e.preventDefault();
            take(chosen);
          } else if (e.key === ' ' && e.ctrlKey) {
            e.preventDefault();
            offerAll();
          } else if (e.key === 'Escape' && list.length > 0) {
            setCaret(null);
          } else if (e.key === 'Enter' || e.key === 'Escape') onEnd();
          e.stopPropagation();
        }}
      />
      {list.length > 0 && (
        <ul id={`${id}-list`} role="listbox" aria-label={`what can stand in the ${label}`} className={css.offers}>
          {list.map((o, i) => (
            <li
              key={o.written}
              id={`${id}-${i}`}
              role="option"
              aria-selected={o === chosen}
              onMouseDown={(e) => {
                e.preventDefault();
                take(o);
              }}
            >
              <span className="mono">{o.written}</span> <span className="quiet">{o.gives}</span>
            </li>
          ))}
        </ul>
      )}
    </span>
  );
}
