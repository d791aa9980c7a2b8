import { expect, test } from 'vitest';
import { switchWords } from './switches';

test('a switch is told with all the ads that it touches', () => {
  expect(switchWords({ setting: 'clickId', after: 'on' }, 1440)).toBe('turns the click ID on for all 1,440 ads');
  expect(switchWords({ setting: 'autoTags', after: 'off' }, 2)).toBe('turns the automatic tags off for all 2 ads');
  expect(switchWords({ setting: 'autoTags', after: 'replace' }, 2)).toContain('replace their keys, for all 2 ads');
});
