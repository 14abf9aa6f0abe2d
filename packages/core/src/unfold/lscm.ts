import { release } from '../linear/cholesky.ts';
import { factoriseHermitian, HERMITIAN_ENTRIES, multiplyHermitian } from '../linear/hermitianTriangles.ts';
import { solveTriangles, triangleSystem } from '../linear/triangleSystem.ts';
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
 * @param vertices  two or more that are pinned; one is enough with inertia
 * @param inertia  how much places hold to zero beside, over an area: for a displacement, whose reach this sets to its inverse root
 * @throws StoppedError
 */
export function pinnedConformal(
  { triangles, positions }: Pick<Shell, 'positions' | 'triangles'>,
  rest: RestTriangles,
  vertices: ArrayLike<number>,
  signal?: Context['signal'],
  inertia = 0,
): PinnedConformal {
  const vertexCount = positions.length / 3;
  const entries = conformalMatrices(rest);
  if (inertia > 0) addMass(entries, rest, inertia);
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

  const system = triangleSystem(triangles, vertexCount, fixed, { complex: true, signal });
  const factor = factoriseHermitian(system, entries, { signal });
  return {
    solve(places) {
      const uv = place(places);
      const pull = multiplyHermitian(triangles, entries, uv).map((value) => -value);
      const answer = solveTriangles(system, factor, pull);
      for (let i = 0; i < uv.length; i++) uv[i] += answer[i];
      return uv;
    },
    release() {
      release(factor);
    },
  };
}

/** Adds a multiple of the mass matrix of linear elements: a sixth of its area on the diagonal of a triangle, a twelfth beside it. */
function addMass(entries: Float64Array, { area }: RestTriangles, factor: number): void {
  for (let t = 0, k = 0; t < area.length; t++, k += HERMITIAN_ENTRIES) {
    const mass = (factor * area[t]) / 12;
    for (let i = 0; i < 3; i++) entries[k + i] += 2 * mass;
    for (const i of [3, 5, 7]) entries[k + i] += mass;
  }
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
 * The paper's energy, Σ |Σⱼ Wⱼ Uⱼ|² / d over triangles, as one Hermitian matrix a triangle (`HERMITIAN_ENTRIES`), where Wⱼ is the side
 * opposite corner j as a complex number and d twice the area; times the part of its area that a triangle weighs.
 */
export function conformalMatrices({ local, area }: RestTriangles): Float64Array {
  const entries = new Float64Array(HERMITIAN_ENTRIES * area.length);
  for (let t = 0, k = 0; t < area.length; t++, k += HERMITIAN_ENTRIES) {
    const x2 = local[3 * t];
    const x3 = local[3 * t + 1];
    const y3 = local[3 * t + 2];
    // A weight of the triangle's own, where it has one, beside 1 / d.
    const d = x2 * y3;
    const scale = (2 * area[t]) / (d * d);
    // W₀ = (x₃ − x₂) + i y₃, W₁ = −x₃ − i y₃, W₂ = x₂; entry (j, k) is W̄ⱼ Wₖ.
    const w = x3 - x2;
    entries[k] = (w * w + y3 * y3) * scale;
    entries[k + 1] = (x3 * x3 + y3 * y3) * scale;
    entries[k + 2] = x2 * x2 * scale;
    entries[k + 3] = -(x3 * w + y3 * y3) * scale;
    entries[k + 4] = -(x3 * y3 - y3 * w) * scale;
    entries[k + 5] = x2 * w * scale;
    entries[k + 6] = x2 * y3 * scale;
    entries[k + 7] = -x2 * x3 * scale;
    entries[k + 8] = -x2 * y3 * scale;
  }
  return entries;
}
