import css from './platforms.module.css';

/** The document as text, JSON or YAML; what is wrong with it stands in the trial beside it. */
export function Writer({ text, onChange }: { text: string; onChange: (text: string) => void }) {
  return (
    <>
      <p className="quiet">
        Levels, slots, marks and tokens, as YAML or JSON. What is wrong shows beside it while you type, and so does a
        click. All words are explained in the schema that ships with it,{' '}
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
  );
}
