import type { Schema } from '../../api/client';
import css from './trace.module.css';

type Pair = Schema['ArrivalPair'];

const WORDS: Record<Pair['verdict'], string> = {
  true: 'true',
  wrong: 'wrong',
  twice: 'twice',
  missing: 'missing',
  unmet: 'can’t be given',
  other: 'not in the plan',
};

/** What the landing page's analytics reads: key, value, where it came from, and whether it is true. */
export function ArrivalTable({ pairs }: { pairs: readonly Pair[] }) {
  return (
    <table className={css.table}>
      <thead>
        <tr>
          <th scope="col">key</th>
          <th scope="col">value</th>
          <th scope="col">from</th>
          <th scope="col">verdict</th>
        </tr>
      </thead>
      <tbody>
        {pairs.map((pair, i) => (
          <tr key={i} data-verdict={pair.verdict} className={css[pair.verdict]}>
            <td className="mono">{pair.key}</td>
            <td className={`mono ${css.value}`}>
              {pair.value === null ? (
                <span className="quiet">nothing</span>
              ) : pair.value === '' ? (
                <span className="quiet">empty</span>
              ) : (
                pair.value
              )}
              {(pair.verdict === 'wrong' || pair.verdict === 'missing') && (
                <div className={css.expected}>plan: {pair.expected === '' ? 'empty' : pair.expected}</div>
              )}
            </td>
            <td className="quiet">{origin(pair)}</td>
            <td>
              {pair.verdict === 'unmet' ? <span title={pair.expected ?? ''}>{WORDS.unmet}</span> : WORDS[pair.verdict]}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function origin({ origin: o, value, verdict }: Pair): string {
  if (value === null) return verdict === 'unmet' ? 'nowhere' : '';
  if (!o) return 'a hop';
  if (o.role === 'click-id') return 'the platform';
  if (o.role === 'auto-tag') return 'the platform’s own tags';
  if (o.role === 'custom') return `${o.token ?? ''} of the ${o.level}`;
  return o.token ? `${o.token} in ${o.level} ${o.slot}` : `${o.level} ${o.slot}`;
}
