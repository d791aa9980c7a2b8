import { Link } from 'react-router';
import type { Schema } from '../../api/client';
import { Ribbon } from '../../components/Ribbon';
import { State } from '../../components/State';
import { useHere } from '../../lib/useClient';
import css from './changes.module.css';

type Story = Schema['Story']['samples'][number];

/** One ad before and after, as two ribbons, and what moves. */
export function Sample({
  sample,
  was,
  open,
  onOpen,
}: {
  sample: Story;
  was: string;
  open: boolean;
  onOpen: () => void;
}) {
  const { to } = useHere();
  if (!open) {
    return (
      <button type="button" className={css.closed} onClick={onOpen} aria-expanded={false}>
        <b>{sample.name}</b> <span className="quiet">{sample.where}</span> <span className={css.opens}>open</span>
      </button>
    );
  }
  return (
    <div className={css.sample}>
      <div className={css.sampleHead}>
        <Link to={to(`trace/${sample.node}`)}>{sample.name}</Link>
        <span className="quiet">
          {sample.where}
          {sample.type && ` · ${sample.type}`}
        </span>
      </div>
      <Side name={was} side={sample.before} />
      <Side name="after" side={sample.after} />
      <div className={css.moved}>
        {moved(sample).map((m) => (
          <span key={m.key} data-moved={m.kind}>
            <b className="mono">{m.key}</b> {m.words}
          </span>
        ))}
      </div>
    </div>
  );
}

function Side({ name, side }: { name: string; side: Story['before'] }) {
  return (
    <div className={css.side}>
      <span className={css.when}>
        {name}
        <State state={side.state} wordless />
      </span>
      <Ribbon segments={side.ribbon} bad={side.faults.map((f) => f.key)} label={`${name}, click URL`} />
    </div>
  );
}

function moved({ before, after }: Story): { key: string; kind: string; words: string }[] {
  const values = (pairs: string[][], key: string) => pairs.filter((p) => p[0] === key).map((p) => p[1] ?? '');
  const keys = [...new Set([...before.arrival, ...after.arrival].map((p) => p[0]!))];
  return keys.flatMap((key) => {
    const was = values(before.arrival, key);
    const is = values(after.arrival, key);
    if (was.join('\n') === is.join('\n')) return [];
    if (was.length === 0) return [{ key, kind: 'new', words: `is new: ${is.join(', ') || 'empty'}` }];
    if (is.length === 0) return [{ key, kind: 'gone', words: `goes (was ${was.join(', ')})` }];
    return [{ key, kind: 'other', words: `${was.join(', ') || 'empty'} → ${is.join(', ') || 'empty'}` }];
  });
}
