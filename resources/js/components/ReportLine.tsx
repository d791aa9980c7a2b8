import type { Schema } from '../api/client';
import css from './reportLine.module.css';

type Line = Schema['ReportLine'];

const HOW: Record<Line['how'], string> = {
  keys: 'told by its keys',
  'click-id': 'told by its click ID alone',
  referrer: 'told by the page it came from',
  none: 'nothing in it tells where it came from',
};

/** How a click will read in a report: the line that its session is counted on. */
export function ReportLine({ line }: { line: Line }) {
  const elsewhere = line.wanted !== null && line.wanted !== line.channel;
  const cells: [string, string][] = [
    ['source / medium', `${line.source || '(empty)'} / ${line.medium || '(empty)'}`],
    ['campaign', line.campaign],
    ['content', line.content],
    ['term', line.term],
    ...line.parts.map((p): [string, string] => [`${p.of} ${p.part}`, p.value]),
  ];
  return (
    <dl className={css.line} aria-label="how a report reads this click">
      <div className={css.channel} data-elsewhere={elsewhere || undefined}>
        <dt>channel</dt>
        <dd title={HOW[line.how]}>
          {line.channel}
          {elsewhere && <span> and not {line.wanted}</span>}
        </dd>
      </div>
      {cells
        .filter(([name, value]) => name === 'source / medium' || value !== '')
        .map(([name, value]) => (
          <div key={name}>
            <dt>{name}</dt>
            <dd className="mono" title={name === 'source / medium' ? HOW[line.how] : value}>
              {value}
            </dd>
          </div>
        ))}
    </dl>
  );
}
