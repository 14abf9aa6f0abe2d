import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { triangleEdges } from './triangleEdges.ts';

describe('edges of a triangle mesh', () => {
  it('are every pair of neighbours once, in order, and every side knows its own, whatever the triangles are', () => {
    const meshes = fc
      .integer({ min: 1, max: 60 })
      .chain((n) =>
        fc.tuple(
          fc.constant(n),
          fc.array(fc.tuple(fc.nat(n - 1), fc.nat(n - 1), fc.nat(n - 1)), { maxLength: 80 }),
        ),
      );
    fc.assert(
      fc.property(meshes, ([n, faces]) => {
        const triangles = Uint32Array.from(faces.flat());
        const { start, upper, sideEdge } = triangleEdges(triangles, n);
        const pairs = Array.from({ length: n }, (_, v) =>
          Array.from(upper.subarray(start[v], start[v + 1]), (w) => n * v + w),
        ).flat();
        const sides = Array.from(triangles, (a, i) => {
          const b = triangles[i % 3 === 2 ? i - 2 : i + 1];
          return n * Math.min(a, b) + Math.max(a, b);
        });
        expect(pairs).toEqual([...new Set(sides)].sort((a, b) => a - b));
        expect(Array.from(sideEdge, (e) => pairs[e])).toEqual(sides);
      }),
    );
  });

  it('are found at once round a vertex that many triangles share', () => {
    const many = 50_000;
    const triangles = Uint32Array.from({ length: 3 * many }, (_, i) =>
      i % 3 === 0 ? 0 : many - Math.floor(i / 3) + (i % 3),
    );
    const { start } = triangleEdges(triangles, many + 3);
    expect(start[1]).toBe(many + 1);
  });
});
