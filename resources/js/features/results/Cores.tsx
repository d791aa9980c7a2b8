import css from './results.module.css';

export const HEIGHT = 168;

/** How wide the two cores are, with what drifts between them. */
export const CORES = 206;

/** Two cores through the layers: the days before, and these. */
export function Cores({
  id,
  left,
  high,
  layers,
}: {
  id: string;
  left: number;
  high: number;
  layers: { at: number; now: number; before: number }[];
}) {
  const sides = (['before', 'now'] as const).map((which) => {
    const sum = layers.reduce((all, l) => all + Math.max(0, l[which]), 0) || 1;
    let down = 4;
    return layers.map((l) => {
      const from = down;
      down += (Math.max(0, l[which]) / sum) * (high - 4);
      return [from, down, Math.max(0, l[which]) / sum] as const;
    });
  });
  const [then, now] = sides;
  const core = 46;
  const right = left + CORES - 60;
  return (
    <g>
      {layers.map((l, i) => {
        const [a, b, before] = then?.[i] ?? [0, 0, 0];
        const [c, d, share] = now?.[i] ?? [0, 0, 0];
        return (
          <g key={l.at}>
            <path className={css.drift} d={`M${left + core},${a}L${right},${c}V${d}L${left + core},${b}Z`} />
            <rect className={css.layer} x={left} width={core} y={a} height={b - a} fill={`url(#${id}-${l.at})`} />
            <rect className={css.layer} x={right} width={core} y={c} height={d - c} fill={`url(#${id}-${l.at})`} />
            {before >= 0.09 && <Share x={left + core / 2} y={(a + b) / 2} of={before} />}
            {share >= 0.09 && <Share x={right + core / 2} y={(c + d) / 2} of={share} />}
          </g>
        );
      })}
      <text x={left + core / 2} y={HEIGHT - 5} textAnchor="middle" className={css.tick}>
        before
      </text>
      <text x={right + core / 2} y={HEIGHT - 5} textAnchor="middle" className={css.tick}>
        these days
      </text>
    </g>
  );
}

const Share = ({ x, y, of }: { x: number; y: number; of: number }) => (
  <text x={x} y={y + 4} textAnchor="middle" className={css.share}>
    {Math.round(of * 100)} %
  </text>
);
