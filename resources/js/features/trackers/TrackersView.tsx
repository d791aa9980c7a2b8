import { Button, FileButton } from '@mantine/core';
import { useMemo, useState } from 'react';
import { Notice } from '../../components/Notice';
import { many } from '../../lib/numbers';
import { useHere } from '../../lib/useClient';
import { useKeys } from '../../lib/useKeys';
import platforms from '../platforms/platforms.module.css';
import { TrackerForm } from './TrackerForm';
import { Way } from './Way';
import { EMPTY, useCounts, useTrackers, type Brought, type Draft, type Suggested, type Tracker } from './useTrackers';
import css from './trackers.module.css';

/** Redirects that clicks pass: told by people, tried beside, suggested by the texts that lead over them. */
export function TrackersView() {
  const { mayEdit } = useHere();
  const trackers = useTrackers();
  const [draft, setDraft] = useState<Draft | null>(null);
  const [url, setUrl] = useState<string | null>(null);
  useKeys(
    useMemo(
      () => ({
        w: (e) => {
          if (!mayEdit || draft) return;
          e.preventDefault();
          setDraft(EMPTY);
        },
      }),
      [mayEdit, draft],
    ),
  );
  if (trackers.error) return <Notice>{trackers.error.message}</Notice>;
  if (!trackers.data) return <div />;
  const { items, suggested } = trackers.data;
  const shown = draft ?? (items[0] ? { ...items[0] } : EMPTY);
  const take = (s: Suggested) => {
    setDraft({ ...EMPTY, host: s.host, parameter: s.parameter, forwards: s.forwards });
    setUrl(s.url);
  };
  return (
    <>
      <article className={platforms.body}>
        <header className={platforms.head}>
          <div>
            <h1>Click trackers</h1>
            <p>
              A click may pass a redirect before it lands. What it forwards, adds and loses decides whether the plan
              arrives: every trace and every proof follows the trackers below.
            </p>
          </div>
          {mayEdit && !draft && (
            <Button size="xs" onClick={() => setDraft(EMPTY)} rightSection={<kbd>w</kbd>}>
              Tell of another
            </Button>
          )}
        </header>
        {mayEdit && suggested.length > 0 && <Suggestions suggested={suggested} onTake={take} />}
        {draft ? (
          <TrackerForm
            key={draft.id ?? draft.host}
            draft={draft}
            onChange={setDraft}
            onDone={() => {
              setDraft(null);
              setUrl(null);
            }}
          />
        ) : (
          <Told trackers={items} onOpen={mayEdit ? (t) => setDraft({ ...t }) : undefined} />
        )}
      </article>
      <Way draft={shown} url={url ?? ''} onUrl={setUrl} />
    </>
  );
}

function Told({ trackers, onOpen }: { trackers: readonly Tracker[]; onOpen?: (tracker: Tracker) => void }) {
  if (trackers.length === 0) {
    return (
      <p className="quiet">
        No click passes a redirect that is known of. Where a template begins with another host and carries the landing
        URL inside, tell of it here.
      </p>
    );
  }
  return (
    <ul className={css.told} aria-label="trackers that clicks pass">
      {trackers.map((t) => (
        <li key={t.id}>
          <div>
            <b className="mono">{t.host}</b>
            <span>
              leads to what stands in <code>{t.parameter}</code>;{' '}
              {t.forwards ? 'hands its other parameters on' : 'keeps its other parameters to itself'}
              {t.adds.length > 0 && (
                <>
                  ; adds <code>{t.adds.map((a) => `${a.key}=${a.text}`).join(' ')}</code>
                </>
              )}
            </span>
            <span className="quiet">
              {t.counts.until === null
                ? 'It is not known how many clicks it sent on: bring a sheet with days and clicks, and Balance tells ' +
                  'what was lost behind it.'
                : `How many clicks it sent on is known of ${many(t.counts.days, 'day')}, until ${t.counts.until}.`}
            </span>
          </div>
          {onOpen && (
            <span className={css.acts}>
              <Counts tracker={t} />
              <Button size="compact-xs" variant="default" onClick={() => onOpen(t)} aria-label={`Change ${t.host}`}>
                Change
              </Button>
            </span>
          )}
        </li>
      ))}
    </ul>
  );
}

/** A sheet that says how many clicks a tracker sent on, by day. */
function Counts({ tracker }: { tracker: Tracker }) {
  const bring = useCounts(tracker);
  const said = bring.error?.message ?? (bring.data && broughtWords(bring.data));
  return (
    <>
      {said && (
        <span role="status" className={bring.error ? css.bad : undefined}>
          {said}
        </span>
      )}
      <FileButton accept=".csv,.tsv,.txt,.xlsx,.ods" onChange={(file) => file && bring.mutate(file)}>
        {(props) => (
          <Button
            {...props}
            size="compact-xs"
            variant="default"
            loading={bring.isPending}
            aria-label={`Bring what ${tracker.host} sent on`}
          >
            Bring counts
          </Button>
        )}
      </FileButton>
    </>
  );
}

const WHY: Record<string, string> = { 'no-day': 'without a day', 'no-count': 'without a number of clicks' };

function broughtWords({ days, leftOut }: Brought): string {
  const out = Object.entries(leftOut).map(([why, n]) => `${many(n, 'row')} ${WHY[why] ?? why}`);
  return `${many(days, 'day')} taken${out.length > 0 ? `; left out: ${out.join(', ')}` : ''}.`;
}

function Suggestions({ suggested, onTake }: { suggested: readonly Suggested[]; onTake: (s: Suggested) => void }) {
  return (
    <section aria-labelledby="shown-by-texts">
      <h2 id="shown-by-texts">Your texts lead over {many(suggested.length, 'host')} that nobody has told of</h2>
      <ul className={css.told}>
        {suggested.map((s) => (
          <li key={s.host}>
            <div>
              <b className="mono">{s.host}</b>
              <span>
                {s.why} <span className="quiet">{`In ${many(s.texts, 'text')}, such as one of ${s.account}:`}</span>
              </span>
              <span className={`mono ${css.text}`}>{s.text}</span>
            </div>
            <Button size="compact-xs" onClick={() => onTake(s)} aria-label={`Tell of ${s.host}`}>
              {s.isSure ? 'Tell of it' : 'Look at it'}
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}
