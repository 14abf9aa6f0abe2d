import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { meshFromPolygons } from './mesh.ts';
import { triangulate } from './triangulate.ts';

/** Areas of the triangles of one flat polygon. */
function areas(outline: readonly (readonly [number, number])[]): number[] {
  const mesh = meshFromPolygons(
    outline.map(([x, y]) => [x, y, 0]),
    [outline.map((_, k) => k)],
  );
  const { triangleCorners } = triangulate(mesh);
  return Array.from({ length: triangleCorners.length / 3 }, (_, t) => {
    const [a, b, c] = triangleCorners.subarray(3 * t, 3 * t + 3);
    const [p, q, r] = [outline[a], outline[b], outline[c]];
    return ((q[0] - p[0]) * (r[1] - p[1]) - (r[0] - p[0]) * (q[1] - p[1])) / 2;
  });
}

const sum = (list: readonly number[]) => list.reduce((a, b) => a + b, 0);

describe('splitting polygons', () => {
  it('gives corners on a straight side a triangle, too', () => {
    const square = [
      [0, 0],
      [1, 0],
      [2, 0],
      [2, 2],
      [1.5, 2],
      [1, 2],
      [0.5, 2],
      [0, 2],
    ] as const;
    const found = areas(square);
    expect(found).toHaveLength(6);
    expect(Math.min(...found)).toBeGreaterThanOrEqual(0);
    expect(sum(found)).toBeCloseTo(4, 12);
  });

  it('covers stars with points along their sides once, whatever their shape', () => {
    const radii = fc.array(fc.double({ min: 0.2, max: 3, noNaN: true }), { minLength: 3, maxLength: 12 });
    fc.assert(
      fc.property(radii, fc.nat(2), (list, between) => {
        const tips = list.map((r, k) => {
          const a = (2 * Math.PI * k) / list.length;
          return [r * Math.cos(a), r * Math.sin(a)] as const;
        });
        const outline = tips.flatMap((p, k) => {
          const q = tips[(k + 1) % tips.length];
          return Array.from({ length: between + 1 }, (_, i) => {
            const t = i / (between + 1);
            return [p[0] + t * (q[0] - p[0]), p[1] + t * (q[1] - p[1])] as const;
          });
        });
        const whole = sum(
          outline.map((p, k) => {
            const q = outline[(k + 1) % outline.length];
            return (p[0] * q[1] - q[0] * p[1]) / 2;
          }),
        );
        const found = areas(outline);
        expect(found).toHaveLength(outline.length - 2);
        expect(sum(found)).toBeCloseTo(whole, 9);
        expect(Math.min(...found)).toBeGreaterThan(-1e-9);
      }),
    );
  });
});
