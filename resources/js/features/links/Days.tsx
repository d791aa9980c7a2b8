import { many } from '../../lib/numbers';
import css from './links.module.css';

const WIDTH = 332;
const HEIGHT = 44;
const SHOWN = 90;

/** How often a short address was opened, day by day of the last ninety: people solid, programs hatched upon them. */
export function Days({ days }: { days: readonly { day: string; people: number; programs: number }[] }) {
  const most = Math.max(1, ...days.map((d) => d.people + d.programs));
  const last = Date.parse(new Date().toISOString().slice(0, 10));
  const step = WIDTH / SHOWN;
  const people = days.reduce((sum, d) => sum + d.people, 0);
  return (
    <figure className={css.days}>
      <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} width="100%" height={HEIGHT} preserveAspectRatio="none" aria-hidden>
        <defs>
          <pattern id="programs" width="4" height="4" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <line x1="0" y1="0" x2="0" y2="4" className={css.hatch} />
          </pattern>
        </defs>
        {days.map((d) => {
          const x = WIDTH - (1 + Math.round((last - Date.parse(d.day)) / 86_400_000)) * step;
          const of = (n: number) => (n / most) * (HEIGHT - 2);
          return (
            <g key={d.day}>
              <title>{`${d.day}: ${many(d.people, 'time')}`}</title>
              <rect x={x} width={step - 0.6} y={HEIGHT - of(d.people)} height={of(d.people)} className={css.people} />
              <rect
                x={x}
                width={step - 0.6}
                y={HEIGHT - of(d.people + d.programs)}
                height={of(d.programs)}
                fill="url(#programs)"
              />
            </g>
          );
        })}
      </svg>
      <figcaption className="quiet">opened {many(people, 'time')} in 90 days</figcaption>
    </figure>
  );
}
