import { heedStop } from '../progress.ts';
import { type Factor, factoriseFilled, IMAGINARY } from './cholesky.ts';
import { BLOCKS, type FactoriseOptions, HIGH, LOW, NOWHERE, type TriangleSystem } from './triangleSystem.ts';

/**
 * Numbers of the Hermitian 3 × 3 matrix of a triangle, over its corners' UVs as complex numbers u + i v: the real diagonal, then real and
 * imaginary part of (1, 0), (2, 0) and (2, 1).
 */
export const HERMITIAN_ENTRIES = 9;

/**
 * Factorises a complex `triangleSystem`; `solveTriangles` solves with it.
 *
 * @param entries  `9 × triangleCount`
 * @throws NotPositiveDefiniteError, StoppedError
 */
export function factoriseHermitian(
  { analysis, freeIndex, places, diagonal: at }: TriangleSystem,
  entries: Float64Array,
  { diagonal, signal }: Pick<FactoriseOptions, 'diagonal' | 'signal'> = {},
): Factor {
  const fill = (panels: Float64Array) => {
    for (let p = 0, k = 0; p < places.length; p += BLOCKS, k += HERMITIAN_ENTRIES) {
      if (p % (BLOCKS << 15) === 0) heedStop(signal);
      for (let j = 0; j < 3; j++) {
        const place = places[p + j];
        if (place !== NOWHERE) panels[place] += entries[k + j];
      }
      for (let j = 0; j < 3; j++) {
        const coded = places[p + 3 + j];
        if (coded === NOWHERE) continue;
        // What lands transposed lands conjugate.
        const place = coded < 0 ? ~coded : coded;
        const imaginary = entries[k + 4 + 2 * j];
        panels[place] += entries[k + 3 + 2 * j];
        panels[place + IMAGINARY] += coded < 0 ? -imaginary : imaginary;
      }
    }
    if (!diagonal) return;
    for (let v = 0; v < freeIndex.length; v++) if (freeIndex[v] >= 0) panels[at[freeIndex[v]]] += diagonal[v];
  };
  return factoriseFilled(analysis, fill, signal);
}

/** H x over all vertices, fixed ones too, with H given triangle by triangle; real and imaginary parts side by side. */
export function multiplyHermitian(
  triangles: Uint32Array,
  entries: Float64Array,
  x: Float64Array,
): Float64Array {
  const y = new Float64Array(x.length);
  for (let t = 0, k = 0; t < triangles.length; t += 3, k += HERMITIAN_ENTRIES) {
    for (let j = 0; j < 3; j++) {
      const a = 2 * triangles[t + j];
      y[a] += entries[k + j] * x[a];
      y[a + 1] += entries[k + j] * x[a + 1];
    }
    for (let j = 0; j < 3; j++) {
      const a = 2 * triangles[t + HIGH[j]];
      const b = 2 * triangles[t + LOW[j]];
      const re = entries[k + 3 + 2 * j];
      const im = entries[k + 4 + 2 * j];
      y[a] += re * x[b] - im * x[b + 1];
      y[a + 1] += re * x[b + 1] + im * x[b];
      y[b] += re * x[a] + im * x[a + 1];
      y[b + 1] += re * x[a + 1] - im * x[a];
    }
  }
  return y;
}
