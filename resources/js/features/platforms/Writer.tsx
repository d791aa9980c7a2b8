import { SegmentedControl } from '@mantine/core';
import { useState } from 'react';
import { Notice } from '../../components/Notice';
import { Drawing } from './Drawing';
import { Pasted } from './Pasted';
import { drawable } from './writing';
import css from './platforms.module.css';

type Way = 'drawing' | 'placeholders' | 'document';

/** A platform being written: drawn, fed with its help's placeholders, or typed; all of it is one document. */
export function Writer({ text, onChange }: { text: string; onChange: (text: string) => void }) {
  const [way, setWay] = useState<Way>('drawing');
  const document = drawable(text);
  return (
    <>
      <SegmentedControl
        size="xs"
        aria-label="how it is written"
        style={{ alignSelf: 'flex-start' }}
        value={way}
        onChange={(v) => setWay(v as Way)}
        data={[
          { value: 'drawing', label: 'drawing' },
          { value: 'placeholders', label: 'placeholders' },
          { value: 'document', label: 'document' },
        ]}
      />
      {way !== 'document' && document === null && (
        <Notice>
          The document can’t be drawn as it stands. Mend it under “document”; beside it stands what is wrong.
        </Notice>
      )}
      {way === 'drawing' && document && <Drawing text={text} document={document} onChange={onChange} />}
      {way === 'placeholders' && document && <Pasted text={text} document={document} onChange={onChange} />}
      {way === 'document' && (
        <>
          <p className="quiet">
            Levels, slots, marks and tokens, as YAML or JSON. What is wrong shows beside it while you type, and so does
            a click. All words are explained in the schema that ships with it,{' '}
            <code>docs/formats/schemas/dialect.schema.json</code>.
          </p>
          <textarea
            className={`${css.writer} mono`}
            aria-label="the platform's document"
            value={text}
            spellCheck={false}
            autoFocus
            onChange={(e) => onChange(e.target.value)}
          />
        </>
      )}
    </>
  );
}
