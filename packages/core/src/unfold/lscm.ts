import { release } from '../linear/cholesky.ts';
import {
  factoriseTriangles,
  LOWER_ENTRIES,
  multiplyTriangles,
  solveTriangles,
  triangleSystem,
} from '../linear/triangleSystem.ts';
import { type Context, heedStop } from '../progress.ts';
import type { RestTriangles } from '../surface/restTriangles.ts';
import type { Shell } from '../surface/shell.ts';

/** Shell vertices that keep their UV. */
export interface Pins {
  readonly vertices: ArrayLike<number>;
  /** `2 × vertices.length`, model units. */
  readonly uv: ArrayLike<number>;
}

/** A conformal map whose pins may be moved again and again: everything but the last solve is done. */
export interface PinnedConformal {
  /** @param uv  of the pinned vertices, `2 × vertices.length` */
  solve(uv: ArrayLike<number>): Float64Array;
  /** Gives the memory back; the map must not be solved again. */
  release(): void;
}

/**
 * Least-squares conformal map of one shell (Lévy, Petitjean, Ray, Maillot 2002), ready for any places of its pins.
 *
 * @param shell  triangles of one connected shell with at least one border
 * @param rest  its triangles, each in its own plane
 * @param vertices  two or more that are pinned
 * @throws StoppedError
 */
export function pinnedConformal(
  { triangles, positions }: Pick<Shell, 'positions' | 'triangles'>,
  rest: RestTriangles,
  vertices: ArrayLike<number>,
  signal?: Context['signal'],
): PinnedConformal {
  const vertexCount = positions.length / 3;
  const lower = conformalMatrices(rest);
  heedStop(signal);
  const fixed = new Uint8Array(vertexCount);
  for (let i = 0; i < vertices.length; i++) fixed[vertices[i]] = 1;
  const place = (places: ArrayLike<number>): Float64Array => {
    const uv = new Float64Array(2 * vertexCount);
    for (let i = 0; i < vertices.length; i++) {
      uv[2 * vertices[i]] = places[2 * i];
      uv[2 * vertices[i] + 1] = places[2 * i + 1];
    }
    return uv;
  };
  if (fixed.every((f) => f === 1)) return { solve: place, release() {} };

  const system = triangleSystem(triangles, vertexCount, fixed, signal);
  const factor = factoriseTriangles(system, lower, { signal });
  return {
    solve(places) {
      const uv = place(places);
      const pull = multiplyTriangles(triangles, lower, uv).map((value) => -value);
      const answer = solveTriangles(system, factor, pull);
      for (let i = 0; i < uv.length; i++) uv[i] += answer[i];
      return uv;
    },
    release() {
      release(factor);
    },
  };
}

/**
 * Least-squares conformal map with given pins: see `pinnedConformal`.
 *
 * @returns UV of every shell vertex, `2 × vertexCount`, model units; may hold flipped triangles where the
 *          surface is strongly curved
 * @throws StoppedError
 */
export function lscm(
  shell: Pick<Shell, 'positions' | 'triangles'>,
  rest: RestTriangles,
  pins: Pins,
  signal?: Context['signal'],
): Float64Array {
  const map = pinnedConformal(shell, rest, pins.vertices, signal);
  const uv = map.solve(pins.uv);
  map.release();
  return uv;
}

/**
 * The paper's energy, Σ |Σⱼ Wⱼ Uⱼ|² / d over triangles, as one 6 × 6 matrix a triangle, where Wⱼ is the side
 * opposite corner j as a complex number and d twice the area; times the part of its area that a triangle weighs.
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
    // A weight of the triangle's own, where it has one, beside 1 / d.
    const d = x2 * y3;
    const scale = (2 * area[t]) / (d * d);
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
