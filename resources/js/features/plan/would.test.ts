import { expect, test } from 'vitest';
import { wholeOf } from './would';

const page = (looked: number, next: number | null) => ({
  account: { id: 1, name: 'One' },
  ads: 50,
  looked,
  next,
  proven: looked - 3,
  breaks: 2,
  mends: 1,
  samples: [1, 2, 3].map((n) => ({ node: looked * 10 + n, name: `ad ${n}`, reason: 'it would not' })),
});

test('it goes on until all ads have been looked at, and tells what is known on the way', async () => {
  const pages = [page(20, 7), page(25, 9), page(5, null)];
  const asked: (number | null)[] = [];
  const told: number[] = [];
  const whole = await wholeOf(
    (above) => {
      asked.push(above);
      return Promise.resolve(pages[asked.length - 1]!);
    },
    (soFar) => told.push(soFar.looked),
  );
  expect(asked).toEqual([null, 7, 9]);
  expect(told).toEqual([20, 45]);
  expect(whole).toMatchObject({ looked: 50, proven: 41, breaks: 6, mends: 3, next: null });
  expect(whole.samples.map((s) => s.node)).toEqual([201, 202, 203, 251, 252]);
});
