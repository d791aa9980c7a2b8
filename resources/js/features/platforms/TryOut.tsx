import { useState } from 'react';
import { FindingList } from '../../components/FindingList';
import { Ribbon } from '../../components/Ribbon';
import { Pairs } from '../../components/Pairs';
import { ReportLine } from '../../components/ReportLine';
import { RealClick } from './RealClick';
import { clickFields, firstTexts, type Document } from './document';
import { SlotInputs } from './SlotInputs';
import { clickOf, elementsOf, useTrial } from './useTrial';
import css from './platforms.module.css';

interface Props {
  text: string;
  document: Document;
  /** the platform is being written: what a real click tells can be taken over */
  onWrite?: (text: string) => void;
}

/** A click on the platform as its document stands: texts on every level, the click, and what it sends, while typing. */
export function TryOut({ text, document: known, onWrite }: Props) {
  const [texts, setTexts] = useState(() => firstTexts(known));
  const [context, setContext] = useState<Record<string, string>>({});
  const [last, setLast] = useState<Document>(known);
  const nodes = elementsOf(last, texts);
  const fields = clickFields(last);
  const click = clickOf(last, context);
  const trial = useTrial(text, nodes, click);
  const read = trial.data;
  if (read && read.problems.length === 0 && read.document !== null && read.document !== last) {
    setLast(read.document as unknown as Document);
  }
  const problems = trial.data?.problems ?? [];
  const sent = trial.data?.click;
  const put = (level: string, slot: string, value: string) =>
    setTexts({ ...texts, [level]: { ...texts[level], [slot]: value } });
  return (
    <aside className={css.trial} aria-label="try it">
      <h2>Try it</h2>
      {trial.error && (
        <p role="alert" className={css.problem}>
          {trial.error.message}
        </p>
      )}
      {problems.length > 0 && (
        <ol className={css.problems} aria-label="what is wrong with the document">
          {problems.map((p) => (
            <li key={p.place + p.message}>
              {p.place && <code>{p.place}</code>} {p.message}
            </li>
          ))}
        </ol>
      )}
      {onWrite && problems.length === 0 && <RealClick text={text} nodes={nodes} onWrite={onWrite} />}
      {sent && problems.length === 0 && (
        <>
          <div className={css.ribbon} data-testid="trial-ribbon">
            <Ribbon segments={sent.ribbon} />
          </div>
          <ReportLine line={sent.line} />
          <Pairs pairs={sent.arrival} />
          <FindingList
            label="what is wrong with the texts"
            findings={sent.findings}
            onFix={(f) => f.fix && f.slot && f.level && put(f.level, f.slot, f.fix.text ?? '')}
          />
        </>
      )}
      <div className={css.inputs}>
        <SlotInputs document={last} texts={texts} className={css.long} onChange={put} />
        {fields.length > 0 && <h2>The click</h2>}
        {fields.map((f) => (
          <label key={f}>
            <span>{f}</span>
            <input
              className="mono"
              spellCheck={false}
              value={click[f]}
              onChange={(e) => setContext({ ...context, [f]: e.target.value })}
            />
          </label>
        ))}
      </div>
    </aside>
  );
}
