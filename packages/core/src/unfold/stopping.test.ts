import { describe, expect, it } from 'vitest';
import { StoppedError } from '../errors.ts';
import { measureStretch } from '../measure/stretch.ts';
import { type Context, unattended } from '../progress.ts';
import { relax } from '../relax/relax.ts';
import { sphericalCap } from '../testing/shapes.ts';
import { METHODS, unfoldShell } from './unfold.ts';

/** Stops when asked for the n-th time whether to. */
function stopAt(n: number): Context & { readonly asked: () => number } {
  let asked = 0;
  const signal = {
    get aborted() {
      return ++asked >= n;
    },
  };
  return { signal, report() {}, asked: () => asked };
}

const cap = sphericalCap(40, 160, 2);

describe('Stop', () => {
  it.each(METHODS)(
    'ends an unfold at every moment it is heard, and leaves the solver fit for the next: %s',
    (method) => {
      const whole = stopAt(Infinity);
      const { uv } = unfoldShell(cap, method, whole);
      expect(whole.asked()).toBeGreaterThan(20);
      for (let n = 1; n <= whole.asked(); n += 1 + (n >> 3)) {
        expect(() => unfoldShell(cap, method, stopAt(n))).toThrow(StoppedError);
      }
      expect(unfoldShell(cap, method, unattended).uv).toEqual(uv);
    },
  );

  it('ends a relax at every moment it is heard, with the best so far', () => {
    const start = unfoldShell(cap, 'conformal', unattended).uv;
    const whole = stopAt(Infinity);
    const best = relax(cap, start, {}, whole);
    let last = Infinity;
    for (let n = 1; n <= whole.asked(); n += 1 + (n >> 3)) {
      const stopped = relax(cap, start, {}, stopAt(n));
      expect(stopped.energyAfter).toBeLessThanOrEqual(last);
      expect(measureStretch(cap, stopped.uv)).toMatchObject({ flipped: 0, collapsed: 0 });
      last = stopped.energyAfter;
    }
    expect(relax(cap, start, {}, unattended).energyAfter).toBe(best.energyAfter);
  });
});
