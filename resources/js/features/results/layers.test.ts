import { describe, expect, it } from 'vitest';
import { laid, scaleOf } from './layers';

describe('layers', () => {
  it('lie upon each other, the first on top, and add up', () => {
    const { laid: all, top } = laid(
      [
        { key: 'a', values: [3, 1] },
        { key: 'b', values: [2, 5] },
      ],
      2,
    );
    expect(all).toEqual([
      { key: 'a', from: [2, 5], to: [5, 6] },
      { key: 'b', from: [0, 0], to: [2, 5] },
    ]);
    expect(top).toBe(6);
  });
  it('are measured in round steps that reach the top', () => {
    for (const top of [0.7, 3, 8, 47, 1234, 99_999]) {
      const scale = scaleOf(top);
      expect(scale.top).toBeGreaterThanOrEqual(top);
      expect(scale.top / scale.step).toBeLessThanOrEqual(3.0001);
    }
    expect(scaleOf(0)).toEqual({ step: 1, top: 1 });
  });
});
