import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { addDemosOnce } from './preferences.ts';

beforeEach(() => {
  const kept = new Map<string, string>();
  vi.stubGlobal('localStorage', {
    getItem: (key: string) => kept.get(key) ?? null,
    setItem: (key: string, value: string) => kept.set(key, value),
  });
});
afterEach(() => vi.unstubAllGlobals());

/** One lock, as browsers give it to one tab after the other. */
function oneLock(): LockManager {
  let last: Promise<unknown> = Promise.resolve();
  const request = (_: string, work: () => Promise<unknown>) => {
    last = last.then(work);
    return last;
  };
  return { request } as unknown as LockManager;
}

it('adds the demos once, whatever number of tabs is opened at a time', async () => {
  const add = vi.fn(async () => {
    await new Promise((resolve) => setTimeout(resolve, 5));
    return true;
  });
  const locks = oneLock();
  await Promise.all([1, 2, 3].map(() => addDemosOnce(add, locks)));
  expect(add).toHaveBeenCalledTimes(1);
});

it('adds them on the next visit where the first one failed', async () => {
  const locks = oneLock();
  const add = vi.fn(async () => false);
  await addDemosOnce(add, locks);
  await addDemosOnce(add, locks);
  expect(add).toHaveBeenCalledTimes(2);
});
