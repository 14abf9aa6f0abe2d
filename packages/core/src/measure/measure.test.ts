import fc from 'fast-check';
import polygonClipping from 'polygon-clipping';
import { describe, expect, it } from 'vitest';
import { triangleAreas } from '../surface/areas.ts';
import { signedArea, triangleArea } from '../surface/flatArea.ts';
import { shellFromTriangles } from '../surface/shell.ts';
import { sphericalCap } from '../testing/shapes.ts';
import { lostByRounding } from './lostByRounding.ts';
import { overlappingTriangles, shellsOverlap } from './overlap.ts';
import { singularValues } from './singularValues.ts';
import { measureStretch } from './stretch.ts';

/** On a coarse lattice, so that triangles often share corners and sides. */
const value = fc.integer({ min: -16, max: 16 }).map((x) => x / 8);
const triangle = fc
  .array(value, { minLength: 6, maxLength: 6 })
  .filter((t) => Math.abs((t[2] - t[0]) * (t[5] - t[1]) - (t[3] - t[1]) * (t[4] - t[0])) > 0.05);

/** Area two triangles share, by the npm package polygon-clipping (Martínez-Rueda et al. 2009). */
function sharedArea(a: readonly number[], b: readonly number[]): number {
  const ring = (t: readonly number[]) => [
    [
      [t[0], t[1]],
      [t[2], t[3]],
      [t[4], t[5]],
    ] as [number, number][],
  ];
  let sum = 0;
  for (const [outer] of polygonClipping.intersection(ring(a), ring(b)))
    for (let i = 0; i + 1 < outer.length; i++)
      sum += outer[i][0] * outer[i + 1][1] - outer[i + 1][0] * outer[i][1];
  return Math.abs(sum) / 2;
}

describe('overlap', () => {
  it('finds the pairs that clipping finds', () => {
    fc.assert(
      fc.property(fc.array(triangle, { minLength: 2, maxLength: 14 }), (triangles) => {
        const found = new Set<string>();
        const { pairs } = overlappingTriangles(Float64Array.from(triangles.flat()));
        for (let i = 0; i < pairs.length; i += 2)
          found.add([pairs[i], pairs[i + 1]].sort((p, q) => p - q).join());
        expect(found.size).toBe(pairs.length / 2);
        const wrong: string[] = [];
        for (let i = 0; i < triangles.length; i++) {
          for (let j = i + 1; j < triangles.length; j++) {
            const shared = sharedArea(triangles[i], triangles[j]);
            const isFound = found.has(`${i},${j}`);
            if ((shared > 1e-3 && !isFound) || (shared < 1e-9 && isFound)) wrong.push(`${i},${j}`);
          }
        }
        expect(wrong).toEqual([]);
      }),
    );
  });

  it('stops at the limit', () => {
    const same = Array.from({ length: 20 }, () => [0, 0, 1, 0, 0, 1]).flat();
    const cut = overlappingTriangles(Float64Array.from(same), { limit: 7 });
    expect(cut.pairs).toHaveLength(14);
    expect(cut.isCutShort).toBe(true);
  });

  it('between shells counts only what crosses from one to the other', () => {
    const folded = Float64Array.from([0, 0, 1, 0, 0, 1, 0, 0, 1, 0, 0, 1]);
    const apart = Float64Array.from([2, 0, 3, 0, 2, 1]);
    expect(shellsOverlap(folded, apart)).toBe(false);
    expect(shellsOverlap(folded, Float64Array.from([0.1, 0.1, 3, 0, 2, 1]))).toBe(true);
  });

  it('takes triangles without area for nothing', () => {
    expect(overlappingTriangles(Float64Array.from([0, 0, 1, 0, 0, 1, 0.1, 0.1, 0.2, 0.2, 0.3, 0.3]))).toEqual(
      { pairs: new Uint32Array(0), isCutShort: false },
    );
  });
});

describe('areas', () => {
  it('count flipped triangles against the shell', () => {
    const triangles = Uint32Array.from([0, 1, 2, 0, 2, 1]);
    const uv = Float64Array.from([0, 0, 2, 0, 0, 2]);
    expect(triangleArea(triangles, uv, 0)).toBe(2);
    expect(triangleArea(triangles, uv, 1)).toBe(-2);
    expect(signedArea(triangles, uv)).toBe(0);
  });

  it('of a cap come near those of the sphere', () => {
    const cap = sphericalCap(40, 120, 1);
    const area = triangleAreas(cap.positions, cap.triangles).reduce((a, b) => a + b, 0);
    expect(area / (2 * Math.PI * (1 - Math.cos(1)))).toBeCloseTo(1, 2);
  });
});

describe('stretch', () => {
  it('has singular values whose product is the area ratio', () => {
    fc.assert(
      fc.property(triangle, fc.array(value, { minLength: 9, maxLength: 9 }), (uv, positions) => {
        const triangles = Uint32Array.from([0, 1, 2]);
        const points = Float64Array.from(positions);
        const [most, least, flat] = singularValues(points, triangles, Float64Array.from(uv));
        expect(most).toBeGreaterThanOrEqual(least);
        expect(most * least * Math.abs(flat)).toBeCloseTo(triangleAreas(points, triangles)[0], 6);
      }),
    );
  });

  it('is the same whatever the scale and turn of the flat shell', () => {
    const cap = sphericalCap(6, 16, 1.2);
    const uv = Float64Array.from(
      { length: (2 * cap.positions.length) / 3 },
      (_, i) => cap.positions[3 * (i >> 1) + (i & 1 ? 2 : 0)],
    );
    const turned = uv.map((_, i) => 7 * (i & 1 ? uv[i - 1] + uv[i] : uv[i] - uv[i + 1]));
    const [a, b] = [measureStretch(cap, uv), measureStretch(cap, turned)];
    expect(b.l2).toBeCloseTo(a.l2, 9);
    expect(b.linf).toBeCloseTo(a.linf, 9);
    expect(b.angleMean).toBeCloseTo(a.angleMean, 4);
    expect(b.areaMean).toBeCloseTo(a.areaMean, 5);
    expect(b.uvArea / a.uvArea).toBeCloseTo(98, 6);
  });

  it('is least, 1, for an isometry, and no map has less', () => {
    const flat = shellFromTriangles([0, 0, 0, 1, 0, 0, 1, 1, 0, 0, 1, 0], [0, 1, 2, 0, 2, 3]);
    expect(measureStretch(flat, Float64Array.from([0, 0, 1, 0, 1, 1, 0, 1])).l2).toBeCloseTo(1, 12);
    fc.assert(
      fc.property(fc.array(value, { minLength: 8, maxLength: 8 }), (uv) => {
        const { l2, linf, areaMean } = measureStretch(flat, Float64Array.from(uv));
        expect(l2).toBeGreaterThan(1 - 1e-9);
        expect(linf).toBeGreaterThanOrEqual(l2 - 1e-6);
        expect(areaMean).toBeGreaterThan(1 - 1e-6);
      }),
    );
  });

  it('is infinite where everything lies in one point', () => {
    const one = shellFromTriangles([0, 0, 0, 1, 0, 0, 0, 1, 0], [0, 1, 2]);
    expect(measureStretch(one, new Float64Array(6))).toMatchObject({
      l2: Infinity,
      linf: Infinity,
      collapsed: 1,
      flipped: 0,
    });
  });

  it('counts faces, not triangles', () => {
    const shell = {
      ...shellFromTriangles([0, 0, 0, 1, 0, 0, 1, 1, 0, 0, 1, 0], [0, 1, 2, 0, 2, 3]),
      triangleFace: Uint32Array.of(7, 7),
    };
    expect(measureStretch(shell, Float64Array.from([0, 0, 0, 1, 1, 1, 1, 0])).flipped).toBe(1);
  });
});

describe('rounding to single precision', () => {
  it('counts the faces that it turns over or makes nothing of, and no face that lay wrong before', () => {
    const speck = (size: number) => Float64Array.of(0.5, 0.5, 0.5 + size, 0.5, 0.5, 0.5 + size);
    const up = Uint32Array.of(0, 1, 2);
    expect(lostByRounding(up, speck(1e-6))).toBe(0);
    expect(lostByRounding(up, speck(1e-9))).toBe(1);
    expect(lostByRounding(Uint32Array.of(0, 2, 1), speck(1e-9))).toBe(0);
    // 2⁻²⁴ is half the step of single precision at 0.5: rounded to even, the second corner passes the first.
    const sliver = Float64Array.of(0.5 + 2 ** -24, 0.5, 0.5 + 2 ** -24 + 2 ** -40, 0.7, 0.5 + 2 ** -24, 0.7);
    expect(lostByRounding(up, sliver)).toBe(1);
  });
});
