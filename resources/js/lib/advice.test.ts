import { describe, expect, it } from 'vitest';
import { adviceWords } from './advice';

describe('what a give in the plan would save', () => {
  it('is told in writes and elements, with separators', () => {
    expect(adviceWords({ give: 'as-is', writes: { now: 12500, then: 1 }, nodes: 12499 })).toBe(
      'as it is, not shaped: 1 write in place of 12,500, and 12,499 elements whose texts would not go stale when ' +
        'something is renamed.',
    );
  });

  it('says on how many ads it was counted, where not on all', () => {
    expect(adviceWords({ give: 'optional', writes: { now: 40, then: 2 }, nodes: 1, of: 850 })).toBe(
      'left out on this platform: 2 writes in place of 40, and 1 element whose texts would not go stale when ' +
        'something is renamed; counted on 850 ads from all over the account.',
    );
  });
});
