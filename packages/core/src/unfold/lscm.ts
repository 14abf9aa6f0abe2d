import { release } from '../linear/cholesky.ts';
import {
  factoriseTriangles,
  LOWER_ENTRIES,
  multiplyTriangles,
  solveTriangles,
  triangleSystem,
} from '../linear/triangleSystem.ts';
import type { Context } from '../progress.ts';
import type { Shell } from '../seams/shell.ts';
import type { RestTriangles } from './restTriangles.ts';

/** Shell vertices that keep their UV. */
export interface Pins {
  readonly vertices: ArrayLike<number>;
  /** `2 × vertices.length`, model units. */
  readonly uv: ArrayLike<number>;
}

/**
 * Least-squares conformal map of one shell (Lévy, Petitjean, Ray, Maillot 2002).
 *
 * @param shell  triangles of one connected shell with at least one border
 * @param rest  its triangles, each in its own plane
 * @param pins  two or more vertices whose UV is given
 * @returns UV of every shell vertex, `2 × vertexCount`, model units; may hold flipped triangles where the
 *          surface is strongly curved
 * @throws StoppedError
 */
export function lscm(
  shell: Shell,
  rest: RestTriangles,
  pins: Pins,
  signal?: Context['signal'],
): Float64Array {
  const vertexCount = shell.positions.length / 3;
  const lower = conformalMatrices(rest);

  const fixed = new Uint8Array(vertexCount);
  const uv = new Float64Array(2 * vertexCount);
  for (let i = 0; i < pins.vertices.length; i++) {
    fixed[pins.vertices[i]] = 1;
    uv[2 * pins.vertices[i]] = pins.uv[2 * i];
    uv[2 * pins.vertices[i] + 1] = pins.uv[2 * i + 1];
  }
  if (fixed.every((f) => f === 1)) return uv;

  const system = triangleSystem(shell.triangles, vertexCount, fixed, signal);
  const factor = factoriseTriangles(system, lower, { signal });
  const pull = multiplyTriangles(shell.triangles, lower, uv).map((value) => -value);
  const answer = solveTriangles(system, factor, pull);
  release(factor);
  for (let i = 0; i < uv.length; i++) uv[i] += answer[i];
  return uv;
}

/**
 * The paper's energy, Σ |Σⱼ Wⱼ Uⱼ|² / d over triangles, as one 6 × 6 matrix a triangle, where Wⱼ is the side
 * opposite corner j as a complex number and d twice the area.
 */
export function conformalMatrices({ local, area }: RestTriangles): Float64Array {
  const lower = new Float64Array(LOWER_ENTRIES * area.length);
  const wx = [0, 0, 0];
  const wy = [0, 0, 0];
  for (let t = 0; t < area.length; t++) {
    const x2 = local[3 * t];
    const x3 = local[3 * t + 1];
    const y3 = local[3 * t + 2];
    wx[0] = x3 - x2;
    wy[0] = y3;
    wx[1] = -x3;
    wy[1] = -y3;
    wx[2] = x2;
    wy[2] = 0;
    const scale = 1 / (2 * area[t]);
    let at = LOWER_ENTRIES * t;
    for (let j = 0; j < 3; j++) {
      // Rows u and v of corner j: |Σ W U|² = Σ Re(W̄ⱼ Wₖ)(uⱼuₖ + vⱼvₖ) + Im(W̄ⱼ Wₖ)(vⱼuₖ − uⱼvₖ).
      for (let row = 0; row < 2; row++) {
        for (let k = 0; k <= j; k++) {
          const real = (wx[j] * wx[k] + wy[j] * wy[k]) * scale;
          const imaginary = (wx[j] * wy[k] - wy[j] * wx[k]) * scale;
          if (k === j) {
            if (row === 1) lower[at++] = 0;
            lower[at++] = real;
          } else if (row === 0) {
            lower[at++] = real;
            lower[at++] = -imaginary;
          } else {
            lower[at++] = imaginary;
            lower[at++] = real;
          }
        }
      }
    }
  }
  return lower;
}
