import { describe, expect, it } from 'vitest';
import { packBetter } from '../src/pack/packBetter.ts';
import { packFirst } from '../src/pack/packFirst.ts';
import type { PackShell } from '../src/pack/packShell.ts';
import { unattended } from '../src/progress.ts';

/**
 * Radii of the best known packings of equal circles in a unit square: E. Specht, “The best known packings of equal circles in a square” (packomania.com), from memory, to the
 * digits given; those of up to 9 and of 16 are proven, and follow from their figures: 4, 9 and 16 in rows, 1 ∕ (2 + √2) for 2.
 */
const RADII: readonly (readonly [count: number, radius: number])[] = [
  [2, 1 / (2 + Math.SQRT2)],
  [3, 0.254333],
  [4, 1 / 4],
  [5, 0.207106],
  [6, 0.18768],
  [7, 0.174457],
  [8, 0.17054],
  [9, 1 / 6],
  [10, 0.148204],
  [13, 0.133993],
  [16, 1 / 8],
  [20, 0.111382],
];

const SIDES = 64;

/** A disc of many sides, within a circle of radius 1. */
const disc: PackShell = {
  triangles: Uint32Array.from(Array.from({ length: SIDES - 2 }, (_, i) => [0, i + 1, i + 2]).flat()),
  uv: Float64Array.from(
    Array.from({ length: SIDES }, (_, i) => [
      Math.cos((2 * Math.PI * i) / SIDES),
      Math.sin((2 * Math.PI * i) / SIDES),
    ]).flat(),
  ),
  turning: [0],
};

describe('equal circles in a square', () => {
  it.each(RADII)(
    '%i of them come near to the best radius that is known, and not past it',
    (count, radius) => {
      const shells = Array.from({ length: count }, () => disc);
      const options = { frame: [0, 0, 1, 1], gap: 0, texel: 1 / 8192 } as const;
      const start = packFirst(shells, options, unattended);
      if (!start) throw new Error('They do not fit.');
      const { placements } = packBetter(shells, start, { ...options, seed: 1, rounds: 150 }, unattended);
      const [{ scale }] = placements;
      // A disc of so many sides is as much smaller than its circle at its sides.
      expect(scale * Math.cos(Math.PI / SIDES)).toBeLessThan(radius * 1.0001);
      expect(scale).toBeGreaterThan(0.93 * radius);
    },
  );
});
