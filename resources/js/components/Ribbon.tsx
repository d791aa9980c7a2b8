import { useRef, useState } from 'react';
import type { Schema } from '../api/client';
import { split, type Stretch } from './stretches';
import css from './ribbon.module.css';

type Segment = Schema['Segment'];

const KINDS: Record<Segment['role'], string> = {
  landing: 'landing URL',
  text: 'fixed text of the template',
  token: 'token, filled at the click',
  custom: 'custom parameter',
  suffix: 'fixed text of the suffix',
  'click-id': 'click ID, added by the platform',
  'auto-tag': 'tag that the platform adds itself',
};

/** Pixels that what is said of a stretch takes at most. */
const WIDEST = 360;

interface Props {
  segments: readonly Segment[];
  /** keys of the plan whose pairs are wrong: they are marked as trouble */
  bad?: readonly string[];
  /** one line that ends in an ellipsis, without pointing; for tables */
  compact?: boolean;
  /** go to where a segment comes from */
  onPick?: (segment: Segment) => void;
  label?: string;
}

/**
 * A URL as people read it: stretches that each show, by colour and by shape, what they are and where they come from.
 *
 * It is one stop of the Tab key; the arrows go along its stretches, Enter goes to where one comes from.
 */
export function Ribbon({ segments, bad = [], compact = false, onPick, label = 'click URL' }: Props) {
  const [at, setAt] = useState<{ i: number; left: number; top: number } | null>(null);
  const ribbon = useRef<HTMLDivElement>(null);
  const stretches = split(segments, bad);
  if (segments.length === 0) return <span className="quiet">no landing URL</span>;
  if (compact) {
    return (
      <span className={`${css.ribbon} ${css.oneLine}`}>
        {stretches.map((s, i) => (
          <span key={i} className={kindClass(s)}>
            {s.text}
          </span>
        ))}
      </span>
    );
  }
  const current = at === null ? undefined : stretches[at.i];
  const go = (i: number) => {
    const element = ribbon.current?.children[i];
    if (element instanceof HTMLElement)
      setAt({
        i,
        left: Math.max(0, Math.min(element.offsetLeft, ribbon.current!.offsetWidth - WIDEST)),
        top: element.offsetTop + element.offsetHeight,
      });
  };
  const onKeyDown = (e: React.KeyboardEvent) => {
    const last = stretches.length - 1;
    const to = {
      ArrowRight: Math.min(last, at === null ? 0 : at.i + 1),
      ArrowLeft: Math.max(0, at === null ? last : at.i - 1),
      Home: 0,
      End: last,
    }[e.key];
    if (to !== undefined) go(to);
    else if (e.key === 'Enter' && current) onPick?.(current.segment);
    else if (e.key === 'Escape' && current) setAt(null);
    else return;
    e.preventDefault();
    e.stopPropagation();
  };
  return (
    <div className={css.whole}>
      <div
        className={css.ribbon}
        role="group"
        aria-label={label}
        tabIndex={0}
        ref={ribbon}
        onKeyDown={onKeyDown}
        onBlur={() => setAt(null)}
        onMouseLeave={() => setAt(null)}
      >
        {stretches.map((s, i) => (
          <span
            key={i}
            className={`${css.segment} ${kindClass(s)}`}
            data-role={s.segment.role}
            data-trouble={s.trouble || undefined}
            data-current={i === at?.i || undefined}
            onMouseEnter={() => go(i)}
            onClick={() => onPick?.(s.segment)}
          >
            {s.text}
          </span>
        ))}
      </div>
      <div role="status">
        {current && at && (
          <div className={css.said} style={{ left: at.left, top: at.top, maxWidth: WIDEST }}>
            <Origin segment={current.segment} />
          </div>
        )}
      </div>
    </div>
  );
}

function Origin({ segment }: { segment: Segment }) {
  return (
    <div style={{ fontSize: 12.5 }}>
      <strong>{KINDS[segment.role]}</strong>
      {segment.token && (
        <div>
          <span className="mono">{segment.token}</span>
          {segment.field && <span className="quiet"> gives {segment.field}</span>}
        </div>
      )}
      {segment.level && (
        <div className="quiet">
          from the {segment.slot ?? 'slot'} of {segment.level} “{segment.name}”
        </div>
      )}
    </div>
  );
}

function kindClass(stretch: Stretch): string {
  return `${css[stretch.segment.role] ?? ''} ${stretch.trouble ? css.trouble : ''}`;
}

/** What the shapes mean. */
export function RibbonLegend() {
  const names: [Segment['role'] | 'trouble', string][] = [
    ['landing', 'landing'],
    ['text', 'fixed text'],
    ['suffix', 'suffix'],
    ['token', 'token'],
    ['custom', 'custom'],
    ['click-id', 'click ID'],
    ['trouble', 'trouble'],
  ];
  return (
    <div className={css.legend} aria-label="what the marks mean">
      {names.map(([kind, name]) => (
        <span key={kind}>
          <span className={css[kind]}>{name}</span>
        </span>
      ))}
    </div>
  );
}
