import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { nearGroups } from './nearness.ts';

const place = fc.double({ min: 0, max: 1, noNaN: true });
const segment = fc.tuple(place, place, place, place);

describe('groups that are too near', () => {
  it('are those whose densely sampled points are', () => {
    fc.assert(
      fc.property(fc.array(segment, { minLength: 2, maxLength: 8 }), (list) => {
        const gap = 0.05;
        const found = nearGroups(Float64Array.from(list.flat()), Uint32Array.from(list.keys()), gap);
        const isFound = (a: number, b: number) =>
          found.some((x, i) => i % 2 === 0 && x === a && found[i + 1] === b);
        const points = list.map(([a, b, c, d]) =>
          Array.from({ length: 201 }, (_, k) => [a + ((c - a) * k) / 200, b + ((d - b) * k) / 200]),
        );
        for (let a = 0; a < list.length; a++)
          for (let b = a + 1; b < list.length; b++) {
            let least = Infinity;
            for (const [x, y] of points[a])
              for (const [p, q] of points[b]) least = Math.min(least, Math.hypot(x - p, y - q));
            // Samples are a hundredth apart at most.
            if (least < gap - 1e-9) expect(isFound(a, b)).toBe(true);
            if (least > gap + 0.01) expect(isFound(a, b)).toBe(false);
          }
      }),
      { numRuns: 30 },
    );
  });

  it('are told once a pair, however many of their segments are near, and not within a group', () => {
    const segments = Float64Array.of(0, 0, 1, 0, 0, 0.01, 1, 0.01, 0, 0.02, 1, 0.02, 0, 0.5, 1, 0.5);
    expect([...nearGroups(segments, Uint32Array.of(3, 3, 7, 9), 0.05)]).toEqual([3, 7]);
    expect(nearGroups(new Float64Array(0), new Uint32Array(0), 1)).toHaveLength(0);
  });
});
