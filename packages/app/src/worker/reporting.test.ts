import { expect, test } from 'vitest';
import { reporting } from './reporting.ts';

test('reports are heard while the work lasts, and none that comes after its answer', async () => {
  const heard: number[] = [];
  let late = (_: number) => {};
  const answer = await reporting(
    (fraction: number) => heard.push(fraction),
    async (report) => {
      late = report;
      report(0.5);
      return 'done';
    },
  );
  late(1);
  expect(answer).toBe('done');
  expect(heard).toEqual([0.5]);
});

test('nothing is heard after a failure, which is passed on', async () => {
  const heard: number[] = [];
  let late = (_: number) => {};
  const work = reporting(
    (fraction: number) => heard.push(fraction),
    async (report) => {
      late = report;
      throw new Error('stopped');
    },
  );
  await expect(work).rejects.toThrow('stopped');
  late(1);
  expect(heard).toEqual([]);
});
