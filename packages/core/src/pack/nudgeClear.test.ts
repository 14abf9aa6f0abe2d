import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { nudgeClear } from './nudgeClear.ts';

/** Two triangles that make up a box. */
const box = (u: number, v: number, w: number, h: number): Float64Array =>
  Float64Array.of(u, v, u + w, v, u + w, v + h, u, v, u + w, v + h, u, v + h);
const UNIT = [0, 0, 1, 1] as const;
const GAP = 0.01;

describe('a shell that is off by little', () => {
  it('goes into a hole that just holds it', () => {
    const off = fc.double({ min: -0.5 * GAP, max: 0.5 * GAP, noNaN: true });
    // Walls round a square of 0.4, a gap away from it.
    const walls = Float64Array.of(
      ...box(0, 0, 0.3 - GAP, 1),
      ...box(0.7 + GAP, 0, 0.2, 1),
      ...box(0.3 - GAP, 0, 0.4 + 2 * GAP, 0.2 - GAP),
      ...box(0.3 - GAP, 0.6 + GAP, 0.4 + 2 * GAP, 0.3),
    );
    fc.assert(
      fc.property(off, off, (du, dv) => {
        const nudge = nudgeClear(box(0.3 + du, 0.2 + dv, 0.4, 0.4), walls, GAP, UNIT);
        expect(nudge?.[0]).toBeCloseTo(-du, 6);
        expect(nudge?.[1]).toBeCloseTo(-dv, 6);
      }),
    );
    // A hair larger it has no room.
    expect(nudgeClear(box(0.3, 0.2, 0.4 + 1e-4, 0.4), walls, GAP, UNIT)).toBeUndefined();
  });

  it('keeps from the rim, and stays where it is clear', () => {
    const none = new Float64Array(0);
    expect(nudgeClear(box(0, 0.995, 0.001, 0.001), none, GAP, UNIT)?.[0]).toBeCloseTo(GAP, 9);
    expect(nudgeClear(box(0.4, 0.4, 0.1, 0.1), box(0.1, 0.1, 0.2, 0.2), GAP, UNIT)).toEqual([0, 0]);
    expect(nudgeClear(box(0, 0, 1, 0.5), none, GAP, UNIT)).toBeUndefined();
    // What lies on another cannot be nudged clear.
    expect(nudgeClear(box(0.4, 0.4, 0.1, 0.1), box(0.45, 0.45, 0.2, 0.2), GAP, UNIT)).toBeUndefined();
  });
});
