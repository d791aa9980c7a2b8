import type { Schema } from '../../api/client';
import css from './trace.module.css';

const WORDS = { hop: 'redirects', landed: 'lands', broken: 'breaks', endless: 'never ends' } as const;

interface Props {
  trail: Schema['Trace']['trail'];
  backgroundUrl?: string | null;
}

/** Every URL from the click to the landing page, and what became of each pair on the way. */
export function Trail({ trail, backgroundUrl = null }: Props) {
  if (trail.length === 0) return <p className="quiet">The ad has no landing URL: there is nothing to open.</p>;
  return (
    <ol className={css.trail}>
      {trail.map((step, i) => (
        <li key={i} data-stop={step.stop}>
          <b>
            {host(step.url)} {WORDS[step.stop]}
          </b>
          <span className="mono">{step.url}</span>
          {i > 0 && <Changed from={trail[i - 1]!.url} to={step.url} />}
        </li>
      ))}
      {backgroundUrl && (
        <li data-stop="hop">
          <b>in the background</b>
          <span className="mono">{backgroundUrl}</span>
        </li>
      )}
    </ol>
  );
}

/** What a hop kept, added and lost, by key. */
function Changed({ from, to }: { from: string; to: string }) {
  const before = keys(from);
  const after = keys(to);
  const list = (words: string, found: string[]) => found.length > 0 && `${words} ${found.join(', ')}`;
  const parts = [
    list(
      'kept',
      after.filter((k) => before.includes(k)),
    ),
    list(
      'brought',
      after.filter((k) => !before.includes(k)),
    ),
    list(
      'lost',
      before.filter((k) => !after.includes(k)),
    ),
  ].filter(Boolean);
  return <span className={`quiet ${css.words}`}>{parts.join(' · ')}</span>;
}

function keys(url: string): string[] {
  const pairs = new URLSearchParams(url.split('#')[0]!.split('?').slice(1).join('?'));
  return [...pairs].filter(([, value]) => !value.startsWith('http')).map(([key]) => key);
}

function host(url: string): string {
  return /^https?:\/\/([^/?#:]*)/.exec(url)?.[1] ?? 'this';
}
