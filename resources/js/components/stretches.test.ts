import { describe, expect, it } from 'vitest';
import { segment } from './segment.fixture';
import { split } from './stretches';

const marked = (segments: ReturnType<typeof segment>[], bad: string[]) =>
  split(segments, bad).map((s) => (s.trouble ? `[${s.text}]` : s.text));

describe('stretches of a ribbon', () => {
  it('are the segments, put end to end', () => {
    const segments = [segment('https://velmar.example/', 'landing'), segment('?a=1&b=2&a=3#x')];
    expect(
      split(segments, ['a', 'b'])
        .map((s) => s.text)
        .join(''),
    ).toBe('https://velmar.example/?a=1&b=2&a=3#x');
  });

  it('mark each pair of a bad key with the mark before it', () => {
    expect(marked([segment('?a=1&b=2&c=3')], ['b'])).toEqual(['?a=1', '[&b=2]', '&c=3']);
    expect(marked([segment('?a=1&b=2&c=3')], ['a', 'b'])).toEqual(['[?a=1&b=2]', '&c=3']);
  });

  it('go on over a token to the end of its pair', () => {
    expect(marked([segment('&term='), segment('x%20y', 'token'), segment('&b=2')], ['term'])).toEqual([
      '[&term=]',
      '[x%20y]',
      '&b=2',
    ]);
  });

  it('find pairs inside an encoded destination', () => {
    expect(marked([segment('?to=https%3A%2F%2Fx%3Fa%3D1%26b%3D2&c=3')], ['b'])).toEqual([
      '?to=https%3A%2F%2Fx%3Fa%3D1',
      '[%26b%3D2]',
      '&c=3',
    ]);
  });

  it('do not take a key for another that ends like it', () => {
    expect(marked([segment('?xa=1&a.b=2')], ['a'])).toEqual(['?xa=1&a.b=2']);
  });
});
