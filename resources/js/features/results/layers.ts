/** Layers put upon each other, as strata are: of each, where it begins and ends at every step. */
export interface Layer {
  key: string;
  /** one for each step; what is below 0 counts as 0 */
  values: readonly number[];
}

export interface Laid {
  key: string;
  from: number[];
  to: number[];
}

export function laid(layers: readonly Layer[], steps: number): { laid: Laid[]; top: number } {
  const height = Array.from({ length: steps }, () => 0);
  const all = [...layers].reverse().map(({ key, values }) => {
    const from = [...height];
    values.forEach((v, i) => {
      height[i] = (height[i] ?? 0) + Math.max(0, v);
    });
    return { key, from, to: [...height] };
  });
  return { laid: all.reverse(), top: Math.max(0, ...height) };
}

/** A round number of units that no more than so many steps take to the top. */
export function scaleOf(top: number, most = 3): { step: number; top: number } {
  if (top <= 0) return { step: 1, top: 1 };
  const power = 10 ** Math.floor(Math.log10(top / most));
  const step = [1, 2, 2.5, 5, 10].map((n) => n * power).find((s) => Math.ceil(top / s) <= most) ?? 10 * power;
  return { step, top: step * Math.ceil(top / step) };
}
