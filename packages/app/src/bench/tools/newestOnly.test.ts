import { describe, expect, it } from 'vitest';
import { newestOnly } from './newestOnly.ts';

describe('work for the newest only', () => {
  it('passes over what came meanwhile, and does the last', async () => {
    const done: [number, boolean][] = [];
    let letGo: () => void = () => undefined;
    const follow = newestOnly<number>(async (item, isNewest) => {
      await new Promise<void>((resolve) => {
        letGo = resolve;
      });
      done.push([item, isNewest()]);
    });
    const all = follow(1);
    void follow(2);
    void follow(3);
    letGo();
    await new Promise((resolve) => setTimeout(resolve));
    letGo();
    await all;
    expect(done).toEqual([
      [1, false],
      [3, true],
    ]);
  });

  it('goes on after one that failed', async () => {
    const done: number[] = [];
    const follow = newestOnly<number>(async (item) => {
      if (item === 1) throw new Error('no');
      done.push(item);
    });
    await expect(follow(1)).rejects.toThrow('no');
    await follow(2);
    expect(done).toEqual([2]);
  });
});
