import { describe, expect, it } from 'vitest';
import { line, moved, said, waysOf, asked, type Channels } from './channels';

describe('channel rules', () => {
  it('are typed as lines of words and read back', () => {
    const test = { key: 'medium', in: ['cpc', 'ppc'], ends: ['-cpc'] };
    expect(line(test, 'in')).toBe('cpc, ppc');
    expect(waysOf(test)).toEqual(['in', 'ends']);
    expect(said(test, 'in', 'cpc, paid listing')).toEqual({
      key: 'medium',
      in: ['cpc', 'paid listing'],
      ends: ['-cpc'],
    });
    expect(said(test, 'ends', '')).toEqual({ key: 'medium', in: ['cpc', 'ppc'] });
  });

  it('have a pattern alone, or words', () => {
    expect(said({ key: 'medium', in: ['cpc'] }, 'matches', '^cp')).toEqual({ key: 'medium', matches: '^cp' });
    expect(said({ key: 'medium', matches: '^cp' }, 'in', 'cpc')).toEqual({ key: 'medium', in: ['cpc'] });
    expect(said({ key: 'source', equals: 'x' }, 'begins', 'y')).toEqual({ key: 'source', in: ['x'], begins: ['y'] });
  });

  it('change places', () => {
    const rule = (channel: string) => ({ channel, all: [] });
    expect(moved([rule('a'), rule('b'), rule('c')], 2, 0).map((r) => r.channel)).toEqual(['c', 'a', 'b']);
  });
});

it('asks for the parameters that rules look at, and for the family', () => {
  const channels: Channels = {
    format: 'vestigon.channels/1',
    keys: { source: 'utm_source', medium: 'utm_medium' },
    rules: [
      {
        channel: 'A',
        all: [
          { key: 'medium', in: ['click-id'] },
          { key: 'family', in: ['social'] },
        ],
      },
    ],
    otherwise: 'Other',
  };
  expect(asked(channels)).toEqual(['utm_source', 'utm_medium', 'family']);
});
