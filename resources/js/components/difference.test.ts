import { expect, test } from 'vitest';
import { parts } from './Difference';

test('whole pairs are set off, and put together they are the texts again', () => {
  expect(parts('https://v.example/b?lang=en&utm_source=old', 'https://v.example/b?lang=en')).toEqual({
    head: 'https://v.example/b?lang=en',
    was: '&utm_source=old',
    is: '',
    tail: '',
  });
  expect(parts('a=1&k=2&b=3', 'a=1&k=25&b=3')).toEqual({ head: 'a=1&k=', was: '2', is: '25', tail: '&b=3' });
  expect(parts('https://v.example/b?utm_source=old&lang=en', 'https://v.example/b?lang=en')).toEqual({
    head: 'https://v.example/b?',
    was: 'utm_source=old&',
    is: '',
    tail: 'lang=en',
  });
  for (const [before, after] of [
    ['', 'x'],
    ['x', ''],
    ['same', 'same'],
    ['a=1&a=1', 'a=1'],
    ['ab?c', 'ab?d#e'],
    ['?', '??'],
  ] as const) {
    const { head, was, is, tail } = parts(before, after);
    expect([head + was + tail, head + is + tail]).toEqual([before, after]);
  }
});
