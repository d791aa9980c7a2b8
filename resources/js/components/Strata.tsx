import { useState } from 'react';
import type { Schema } from '../api/client';
import { Stretch, type Finding } from './FindingList';
import { TokenInput } from './TokenInput';
import css from './strata.module.css';

type Stratum = Schema['Stratum'];

export interface Tried {
  node: number;
  slot: 'template' | 'suffix' | 'landing' | 'custom';
  /** the custom parameter's name */
  custom?: string | null;
  text: string | null;
}

interface Props {
  strata: readonly Stratum[];
  /** texts that are tried here, not saved */
  tried?: readonly Tried[];
  onTry?: (text: Tried) => void;
  /** the tokens that work in each slot */
  offers?: Schema['Offers'];
  /** what is wrong, the worst first: its stretch of the text is set off */
  findings?: readonly Finding[];
}

/** The picture of inheritance: one layer a level. What counts is solid; what is hidden is hatched, with the reason. */
export function Strata({ strata, tried = [], onTry, offers, findings = [] }: Props) {
  return (
    <div className={css.strata} role="list" aria-label="what each level says">
      {strata.map((layer, depth) => (
        <div
          key={layer.node}
          className={css.layer}
          role="listitem"
          style={
            { '--depth': `color-mix(in srgb, var(--accent) ${25 + depth * 25}%, var(--line))` } as React.CSSProperties
          }
        >
          <div className={css.level}>
            <b>{layer.level}</b>
            <span title={layer.name}>{layer.name}</span>
          </div>
          <Texts
            layer={layer}
            tried={tried}
            onTry={onTry}
            offers={offers}
            findings={findings.filter((f) => f.node === layer.node && f.at !== null)}
          />
        </div>
      ))}
    </div>
  );
}

function Texts({
  layer,
  tried,
  onTry,
  offers,
  findings,
}: {
  layer: Stratum;
  tried: readonly Tried[];
  onTry?: (text: Tried) => void;
  offers?: Schema['Offers'];
  findings: readonly Finding[];
}) {
  const marked = (text: string, slot: string) => {
    const wrong = findings.find((f) => f.slot === slot);
    return <Stretch text={text} at={wrong?.at ?? null} length={wrong?.length ?? null} />;
  };
  const [editing, setEditing] = useState<string | null>(null);
  const without = layer.slots.filter((slot) => !layer.texts.some((t) => t.slot === slot));
  // a slot that is being written is a row like those that have a text: the row stays the same while its text comes
  // and goes
  const written = without.find((slot) => slot === editing);
  const rows = [
    ...layer.texts,
    ...(written === undefined ? [] : [{ slot: written, text: '', state: 'counts' as const, why: null }]),
  ];
  const isTried = (slot: string) => tried.some((t) => t.node === layer.node && t.slot === slot);
  const edit = (slot: Tried['slot'], text: string, custom?: string) => (
    <TokenInput
      text={text}
      label={`${custom ?? slot} of ${layer.level}`}
      marks={offers}
      offers={offers?.[slot] ?? []}
      onChange={(value) => onTry?.({ node: layer.node, slot, custom, text: value === '' ? null : value })}
      onEnd={() => setEditing(null)}
    />
  );
  return (
    <div className={css.texts}>
      {rows.map((text) => (
        <div
          key={text.slot}
          className={`${css.text} ${text.state === 'counts' ? css.counts : css.out}`}
          data-state={text.state}
          data-slot={text.slot}
        >
          <span className={css.slot}>{text.slot}</span>
          {editing === text.slot ? (
            edit(text.slot as Tried['slot'], text.text)
          ) : (
            <span className={css.body}>{marked(text.text, text.slot)}</span>
          )}
          <span>
            {isTried(text.slot) && <span className={`${css.why} ${css.tried}`}>tried, not saved</span>}
            {text.why && <span className={css.why}>{text.why}</span>}
            {onTry && editing !== text.slot && (
              <button
                type="button"
                className={css.edit}
                onClick={() => setEditing(text.slot)}
                aria-label={`try another ${text.slot} for ${layer.level}`}
              >
                try
              </button>
            )}
          </span>
        </div>
      ))}
      {layer.custom.map((custom) => (
        <div key={custom.name} className={`${css.text} ${css.counts}`} data-slot="custom">
          <span className={css.slot}>custom</span>
          {editing === `custom ${custom.name}` ? (
            <span className={css.body}>{edit('custom', custom.text, custom.name)}</span>
          ) : (
            <span className={css.body}>
              {custom.written} = {custom.text}
            </span>
          )}
          <span>
            {tried.some((t) => t.node === layer.node && t.custom === custom.name) && (
              <span className={`${css.why} ${css.tried}`}>tried, not saved</span>
            )}
            {onTry && editing !== `custom ${custom.name}` && (
              <button
                type="button"
                className={css.edit}
                onClick={() => setEditing(`custom ${custom.name}`)}
                aria-label={`try another ${custom.written} for ${layer.level}`}
              >
                try
              </button>
            )}
          </span>
        </div>
      ))}
      {without.some((slot) => slot !== editing) && (
        <div className={css.empty}>
          {rows.length + layer.custom.length === 0 && <span>says nothing</span>}
          {onTry &&
            without
              .filter((slot) => slot !== editing)
              .map((slot) => (
                <button
                  key={slot}
                  type="button"
                  className={css.edit}
                  onClick={() => setEditing(slot)}
                  aria-label={`try a ${slot} for ${layer.level}`}
                >
                  {isTried(slot) ? `${slot} cleared, not saved` : `try a ${slot}`}
                </button>
              ))}
        </div>
      )}
    </div>
  );
}
