import { HoverCard } from '@mantine/core';
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

/** A URL as people read it: stretches that each show, by colour and by shape, what they are and where they come from. */
export function Ribbon({ segments, bad = [], compact = false, onPick, label = 'click URL' }: Props) {
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
  return (
    <div className={css.ribbon} role="group" aria-label={label}>
      {stretches.map((s, i) => (
        <HoverCard key={i} openDelay={120} closeDelay={60} shadow="sm" position="bottom-start" withinPortal>
          <HoverCard.Target>
            {/* no button: browsers do not break one over lines */}
            <span
              role="button"
              tabIndex={0}
              className={`${css.segment} ${kindClass(s)}`}
              data-role={s.segment.role}
              data-trouble={s.trouble || undefined}
              onClick={() => onPick?.(s.segment)}
              onKeyDown={(e) => {
                if (e.key !== 'Enter' && e.key !== ' ') return;
                e.preventDefault();
                onPick?.(s.segment);
              }}
            >
              {s.text}
            </span>
          </HoverCard.Target>
          <HoverCard.Dropdown p="xs" maw={360}>
            <Origin segment={s.segment} />
          </HoverCard.Dropdown>
        </HoverCard>
      ))}
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
