import { Button } from '@mantine/core';
import { useState } from 'react';
import { Notice } from '../../components/Notice';
import { useHere } from '../../lib/useClient';
import { Composer } from './Composer';
import { OffPattern } from './OffPattern';
import { PatternEditor } from './PatternEditor';
import { Rooms } from './Rooms';
import { Saving } from './Saving';
import { useAgreement } from './useAgreement';
import { FIRST, forWhom, shown, type Names, type Pattern } from './names';
import css from './agree.module.css';

/** How things are named: patterns, names put together by them, and those that are off. */
export default function NamesPage() {
  const { mayEdit } = useHere();
  const of = useAgreement<Names>('names');
  const [at, setAt] = useState(0);
  if (of.error) return <Notice>{of.error.message}</Notice>;
  if (!of.saved || !of.document) return null;
  const patterns = of.document.patterns;
  const pattern = patterns[Math.min(at, patterns.length - 1)];
  const set = (next: Pattern[]) => of.set({ patterns: next });
  return (
    <div className={css.page}>
      <Rooms>
        <span style={{ flex: 1 }} />
        <Saving {...of} saved={of.saved} mayEdit={mayEdit} />
      </Rooms>
      <div className={css.names}>
        <div>
          <div className={css.keys} role="tablist" aria-label="patterns" aria-orientation="vertical">
            {patterns.map((p, i) => (
              <button
                key={i}
                type="button"
                role="tab"
                aria-selected={p === pattern}
                className={`${css.keyTab} ${p === pattern ? css.on : ''}`}
                onClick={() => setAt(i)}
              >
                <b>{p.title || `pattern ${i + 1}`}</b>
                <span className="mono">{shown(p)}</span>
                <span className="quiet">{forWhom(p)}</span>
              </button>
            ))}
          </div>
          {mayEdit && (
            <Button
              size="compact-xs"
              variant="subtle"
              onClick={() => {
                set([...patterns, FIRST]);
                setAt(patterns.length);
              }}
            >
              Add a pattern
            </Button>
          )}
        </div>
        {pattern === undefined ? (
          <p className="quiet">
            Names are free. A pattern says which parts a name has: then names are put together by keyboard, those that
            are off are found, and each part is a field of the plan.
          </p>
        ) : (
          <div className={css.patterns}>
            <PatternEditor
              pattern={pattern}
              onChange={mayEdit ? (to) => set(patterns.map((p) => (p === pattern ? to : p))) : undefined}
              onOut={() => set(patterns.filter((p) => p !== pattern))}
            />
            <Composer key={shown(pattern)} pattern={pattern} />
          </div>
        )}
      </div>
      {patterns.length > 0 && <OffPattern document={of.document} isEdited={of.isEdited} />}
    </div>
  );
}
