import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { StoppedError } from '../errors.ts';
import { sphericalCap } from '../testing/shapes.ts';
import { seeded } from '../testing/wander.ts';
import { NotPositiveDefiniteError } from './cholesky.ts';
import { factoriseHermitian, HERMITIAN_ENTRIES, multiplyHermitian } from './hermitianTriangles.ts';
import {
  factoriseTriangles,
  LOWER_ENTRIES,
  multiplyTriangles,
  solveTriangles,
  triangleSystem,
} from './triangleSystem.ts';

/** Positive definite matrices: |Σ wⱼ xⱼ|² with random complex weights, and a little of the identity. */
function randomEntries(count: number, random: () => number): Float64Array {
  const entries = new Float64Array(HERMITIAN_ENTRIES * count);
  for (let k = 0; k < entries.length; k += HERMITIAN_ENTRIES) {
    const [a, b, c, d, e, f] = Array.from({ length: 6 }, () => 2 * random() - 1);
    const w = [
      [a, b],
      [c, d],
      [e, f],
    ];
    w.forEach(([re, im], j) => {
      entries[k + j] = re * re + im * im + 0.2;
    });
    [
      [1, 0],
      [2, 0],
      [2, 1],
    ].forEach(([i, j], n) => {
      // W̄ᵢ Wⱼ
      entries[k + 3 + 2 * n] = w[i][0] * w[j][0] + w[i][1] * w[j][1];
      entries[k + 4 + 2 * n] = w[i][0] * w[j][1] - w[i][1] * w[j][0];
    });
  }
  return entries;
}

/** The same as real 6 × 6 matrices: x + iy stands for the block (x −y; y x). */
function asReal(entries: Float64Array): Float64Array {
  const lower = new Float64Array((LOWER_ENTRIES * entries.length) / HERMITIAN_ENTRIES);
  for (let k = 0, t = 0; k < entries.length; k += HERMITIAN_ENTRIES, t += LOWER_ENTRIES) {
    const put = (row: number, column: number, value: number) => {
      lower[t + (row * (row + 1)) / 2 + column] = value;
    };
    for (let j = 0; j < 3; j++) for (let p = 0; p < 2; p++) put(2 * j + p, 2 * j + p, entries[k + j]);
    [
      [1, 0],
      [2, 0],
      [2, 1],
    ].forEach(([i, j], n) => {
      const [re, im] = [entries[k + 3 + 2 * n], entries[k + 4 + 2 * n]];
      put(2 * i, 2 * j, re);
      put(2 * i, 2 * j + 1, -im);
      put(2 * i + 1, 2 * j, im);
      put(2 * i + 1, 2 * j + 1, re);
    });
  }
  return lower;
}

describe('Hermitian systems of triangles', () => {
  it('multiply, factorise and solve as real ones of twice the size, whatever the triangles and whichever vertices are fixed', () => {
    const meshes = fc.integer({ min: 3, max: 40 }).chain((n) =>
      fc.record({
        n: fc.constant(n),
        faces: fc.array(fc.uniqueArray(fc.nat(n - 1), { minLength: 3, maxLength: 3 }), {
          minLength: 1,
          maxLength: 60,
        }),
        seed: fc.nat(),
        held: fc.array(fc.nat(n - 2), { maxLength: 4 }),
      }),
    );
    fc.assert(
      fc.property(meshes, ({ n, faces, seed, held }) => {
        const random = seeded(seed);
        const triangles = Uint32Array.from(faces.flat());
        const entries = randomEntries(faces.length, random);
        const lower = asReal(entries);
        const x = Float64Array.from({ length: 2 * n }, () => 2 * random() - 1);
        const product = multiplyTriangles(triangles, lower, x);
        multiplyHermitian(triangles, entries, x).forEach((y, i) => {
          expect(y).toBeCloseTo(product[i], 12);
        });

        const fixed = new Uint8Array(n);
        for (const v of held) fixed[v] = 1;
        const diagonal = Float64Array.from({ length: n }, () => 0.5 + random());
        const system = triangleSystem(triangles, n, fixed, { complex: true });
        const answer = solveTriangles(system, factoriseHermitian(system, entries, { diagonal }), x);
        const twin = triangleSystem(triangles, n, fixed);
        const due = solveTriangles(twin, factoriseTriangles(twin, lower, { diagonal }), x);
        answer.forEach((value, i) => {
          expect(value).toBeCloseTo(due[i], 10);
        });
      }),
    );
  });

  it('of several hundred fronts leave a small residual', () => {
    const { triangles, positions } = sphericalCap(40, 120, 2);
    const n = positions.length / 3;
    const entries = randomEntries(triangles.length / 3, seeded(7));
    const system = triangleSystem(triangles, n, new Uint8Array(n), { complex: true });
    const b = Float64Array.from({ length: 2 * n }, (_, i) => Math.sin(i * i));
    const x = solveTriangles(system, factoriseHermitian(system, entries), b);
    const left = multiplyHermitian(triangles, entries, x).map((y, i) => Math.abs(y - b[i]));
    expect(Math.max(...left)).toBeLessThan(1e-11);
  });

  it('refuse what is not positive definite, and stop when told', () => {
    const triangles = Uint32Array.of(0, 1, 2);
    const system = triangleSystem(triangles, 3, new Uint8Array(3), { complex: true });
    const entries = randomEntries(1, seeded(1));
    expect(() =>
      factoriseHermitian(
        system,
        entries.map((x) => -x),
      ),
    ).toThrow(NotPositiveDefiniteError);
    expect(() => factoriseHermitian(system, entries.fill(NaN))).toThrow(NotPositiveDefiniteError);
    expect(() => factoriseHermitian(system, entries, { signal: { aborted: true } })).toThrow(StoppedError);
  });
});
