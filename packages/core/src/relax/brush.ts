import { bucket } from '../mesh/connectivity.ts';
import { anyDiagonal } from '../surface/anyDiagonal.ts';
import { coveredArea, triangleArea } from '../surface/flatArea.ts';
import { type RestTriangles, restTriangles } from '../surface/restTriangles.ts';
import type { Shell } from '../surface/shell.ts';

/** What a brush does to the flat under it. */
export const BRUSHES = ['push', 'relax', 'gather', 'spread'] as const;
export type Brush = (typeof BRUSHES)[number];

/** One touch of a brush, in the units of the flat. */
export interface Dab {
  readonly u: number;
  readonly v: number;
  /** How far the hand went since the last one. */
  readonly du: number;
  readonly dv: number;
  readonly radius: number;
  /** 0 to 1. */
  readonly strength: number;
}

/** A shell under a brush: made once a stroke. */
export interface BrushedShell {
  readonly triangles: Uint32Array;
  readonly rest: RestTriangles;
  /** Triangles at every vertex: `at.items[at.start[v] … at.start[v + 1]]`. */
  readonly at: { readonly start: Uint32Array; readonly items: Uint32Array };
  /** The triangles that must not flip, whichever way polygons are split, and their places round every vertex. */
  readonly guarded: Uint32Array;
  readonly guardedRest: RestTriangles;
  readonly guardedAt: { readonly start: Uint32Array; readonly items: Uint32Array };
  /** Least flat area of each of those; below it lies only what was below it before. */
  readonly least: Float64Array;
  /** Least and greatest stretch of each of those that gathering and spreading may lead to, flat length per length on the surface, two a triangle. */
  readonly bounds: Float64Array;
  /** Flat length per length on the surface. */
  readonly scale: number;
  /** 1 for vertices that stay. */
  readonly held: Uint8Array;
  /** Scratch of a touch: the place of each vertex among those that move, −1 for the others, and 1 for each guarded triangle to look at. */
  readonly slot: Int32Array;
  readonly marked: Uint8Array;
}

/** A triangle may shrink to this part of its due area and no further. */
const LEAST = 1e-3;
/** Gathering and spreading leave lengths within this factor of what is due, or no farther from it than they were. */
const MOST_STRETCH = 2;
/** Part of the way to the middle, or away from it, at full strength. */
const PULL = 0.12;
/** Halvings of a step that would fold something, before what is in the way stays where it is. */
const HALVINGS = 6;

export function brushedShell(shell: Shell, uv: Float64Array, held: Uint8Array): BrushedShell {
  const { positions, triangles } = shell;
  const count = positions.length / 3;
  const rest = restTriangles(positions, triangles);
  const guards = anyDiagonal(shell);
  const due = coveredArea(triangles, uv) / (rest.totalArea || 1);
  const least = guards.rest.area.map((area, t) =>
    Math.min(LEAST * due * area, triangleArea(guards.triangles, uv, t)),
  );
  const scale = Math.sqrt(due);
  const bounds = new Float64Array(2 * least.length);
  for (let t = 0; t < least.length; t++) {
    const [most, fewest] = stretches(guards.triangles, guards.rest, uv, t);
    bounds[2 * t] = Math.min(scale / MOST_STRETCH, fewest);
    bounds[2 * t + 1] = Math.max(scale * MOST_STRETCH, most);
  }
  return {
    triangles,
    rest,
    bounds,
    at: bucket(triangles, count),
    guarded: guards.triangles,
    guardedRest: guards.rest,
    guardedAt: bucket(guards.triangles, count),
    least,
    scale,
    held,
    slot: new Int32Array(count).fill(-1),
    marked: new Uint8Array(least.length),
  };
}

/**
 * One touch of a brush. Vertices under it move, those in the middle most, and never so far that a triangle flips or comes near to it: what is in
 * the way stops, and what follows it stops behind it.
 *
 * @param uv  `2 × vertexCount`; changed in place
 * @returns the vertices that were under the brush
 */
export function dab(shell: BrushedShell, uv: Float64Array, brush: Brush, touch: Dab): number[] {
  const { u, v, radius } = touch;
  const under: number[] = [];
  for (let i = 0; i < shell.held.length; i++) {
    const [du, dv] = [uv[2 * i] - u, uv[2 * i + 1] - v];
    if (!shell.held[i] && du * du + dv * dv < radius * radius) under.push(i);
  }
  const weights = under.map((i) => {
    const near = 1 - ((uv[2 * i] - u) ** 2 + (uv[2 * i + 1] - v) ** 2) / radius ** 2;
    return touch.strength * near * near;
  });
  if (brush === 'relax') {
    under.forEach((i, k) => {
      relaxVertex(shell, uv, i, weights[k]);
    });
    return under;
  }
  const step = new Float64Array(2 * under.length);
  under.forEach((i, k) => {
    const weight = weights[k];
    const [du, dv] = pull(uv, brush, touch, i);
    step[2 * k] = weight * du;
    step[2 * k + 1] = weight * dv;
  });
  const { guarded, guardedRest, least, bounds } = shell;
  const unfolded = (t: number) => triangleArea(guarded, uv, t) >= least[t];
  moveWithin(shell, uv, under, step, brush === 'push' ? unfolded : (t) => unfolded(t) && isWithin(t));
  return under;

  function isWithin(t: number): boolean {
    const [most, fewest] = stretches(guarded, guardedRest, uv, t);
    return fewest >= bounds[2 * t] && most <= bounds[2 * t + 1];
  }
}

/** Greatest and least flat length of a unit step on a triangle: the singular values of its map into the flat. */
function stretches(
  triangles: Uint32Array,
  { local }: RestTriangles,
  uv: Float64Array,
  t: number,
): readonly [most: number, least: number] {
  const [p, q, r, s] = mapOf(triangles, local, uv, t, 1);
  const [sum, difference] = [Math.hypot(p + s, q - r), Math.hypot(p - s, q + r)];
  return [(sum + difference) / 2, Math.abs(sum - difference) / 2];
}

/** The map J = [p q; r s] of a triangle from its own plane, at a scale, into the flat. */
function mapOf(
  triangles: Uint32Array,
  local: Float64Array,
  uv: Float64Array,
  t: number,
  scale: number,
): readonly [p: number, q: number, r: number, s: number] {
  const [a, b, c] = [2 * triangles[3 * t], 2 * triangles[3 * t + 1], 2 * triangles[3 * t + 2]];
  const [bx, cx, cy] = [scale * local[3 * t], scale * local[3 * t + 1], scale * local[3 * t + 2]];
  const p = (uv[b] - uv[a]) / bx;
  const r = (uv[b + 1] - uv[a + 1]) / bx;
  return [p, (uv[c] - uv[a] - p * cx) / cy, r, (uv[c + 1] - uv[a + 1] - r * cx) / cy];
}

/** Where a vertex would go under the middle of the brush. */
function pull(
  uv: Float64Array,
  brush: Exclude<Brush, 'relax'>,
  { u, v, du, dv }: Dab,
  i: number,
): readonly [number, number] {
  switch (brush) {
    case 'push':
      return [du, dv];
    case 'gather':
      return [PULL * (u - uv[2 * i]), PULL * (v - uv[2 * i + 1])];
    case 'spread':
      return [PULL * (uv[2 * i] - u), PULL * (uv[2 * i + 1] - v)];
  }
}

/**
 * Moves one vertex down the symmetric Dirichlet energy of the triangles beside it (Smith and Schaefer 2015), the others fixed: along its gradient, over the
 * stiffness that it has there, and back by halves until the energy is less. It never rises so, and nothing folds.
 */
function relaxVertex(shell: BrushedShell, uv: Float64Array, i: number, part: number): void {
  const found = pullOfEnergy(shell, uv, i);
  if (!found) return;
  const { energy, gradient, stiffness } = found;
  const [x, y] = [uv[2 * i], uv[2 * i + 1]];
  let step = part / stiffness;
  for (let halving = 0; halving < HALVINGS; halving++, step /= 2) {
    uv[2 * i] = x - step * gradient[0];
    uv[2 * i + 1] = y - step * gradient[1];
    const then = pullOfEnergy(shell, uv, i);
    if (then && then.energy < energy) return;
  }
  uv[2 * i] = x;
  uv[2 * i + 1] = y;
}

/** Energy of the triangles at a vertex, its slope there and how stiff it is; undefined where one of them is flipped. */
function pullOfEnergy(
  { guarded, guardedRest, guardedAt, least, scale }: BrushedShell,
  uv: Float64Array,
  i: number,
) {
  let [energy, gx, gy, stiffness] = [0, 0, 0, 0];
  const { local, area } = guardedRest;
  for (let k = guardedAt.start[i]; k < guardedAt.start[i + 1]; k++) {
    const corner = guardedAt.items[k];
    const t = Math.floor(corner / 3);
    // What was folded before the stroke has no say.
    if (least[t] <= 0) continue;
    const [bx, cx, cy] = [scale * local[3 * t], scale * local[3 * t + 1], scale * local[3 * t + 2]];
    const [p, q, r, s] = mapOf(guarded, local, uv, t, scale);
    const det = p * s - q * r;
    if (!(det > 0)) return undefined;
    const square = p * p + q * q + r * r + s * s;
    const [own, inverse] = [area[t], 1 / (det * det)];
    energy += own * square * (1 + inverse);
    // Gradient of the hat function of this corner in the plane of the triangle.
    const h = corner - 3 * t;
    const hx = h === 0 ? -1 / bx : h === 1 ? 1 / bx : 0;
    const hy = h === 0 ? (cx / bx - 1) / cy : h === 1 ? -cx / (bx * cy) : 1 / cy;
    const [along, against] = [2 * (1 + inverse), (2 * square * inverse) / det];
    gx += own * ((along * p - against * s) * hx + (along * q + against * r) * hy);
    gy += own * ((along * r + against * q) * hx + (along * s - against * p) * hy);
    stiffness += own * (along + (6 * square * inverse) / det) * (hx * hx + hy * hy);
  }
  return { energy, gradient: [gx, gy] as const, stiffness: stiffness || 1 };
}

/**
 * Moves vertices as far as they may.
 *
 * @param isFine  whether a guarded triangle may lie as it does
 */
function moveWithin(
  shell: BrushedShell,
  uv: Float64Array,
  moved: readonly number[],
  step: Float64Array,
  isFine: (triangle: number) => boolean,
): void {
  const { guarded, guardedAt, slot, marked } = shell;
  const before = new Float64Array(2 * moved.length);
  for (let k = 0; k < moved.length; k++) {
    slot[moved[k]] = k;
    before[2 * k] = uv[2 * moved[k]];
    before[2 * k + 1] = uv[2 * moved[k] + 1];
  }
  const part = new Float64Array(moved.length).fill(1);
  const put = (k: number): void => {
    uv[2 * moved[k]] = before[2 * k] + part[k] * step[2 * k];
    uv[2 * moved[k] + 1] = before[2 * k + 1] + part[k] * step[2 * k + 1];
  };
  for (let k = 0; k < moved.length; k++) put(k);
  let look = trianglesAt(guardedAt, moved, marked);
  // Each round only looks round what it has changed; with every part at nothing all is as it was, and valid.
  for (let round = 0; look.length > 0; round++) {
    const shrunk = new Set<number>();
    for (const t of look) {
      if (isFine(t)) continue;
      for (let c = 3 * t; c < 3 * t + 3; c++) {
        const k = slot[guarded[c]];
        if (k >= 0 && part[k] > 0) shrunk.add(k);
      }
    }
    for (const k of shrunk) {
      part[k] = round < HALVINGS ? part[k] / 2 : 0;
      put(k);
    }
    look = trianglesAt(
      guardedAt,
      Array.from(shrunk, (k) => moved[k]),
      marked,
    );
  }
  for (const v of moved) slot[v] = -1;
}

/**
 * The triangles at some vertices, each once.
 *
 * @param at  places of triangles round every vertex
 * @param marked  0 for each triangle, before and after
 */
function trianglesAt(at: BrushedShell['at'], vertices: readonly number[], marked: Uint8Array): number[] {
  const found: number[] = [];
  for (const v of vertices)
    for (let k = at.start[v]; k < at.start[v + 1]; k++) {
      const t = Math.floor(at.items[k] / 3);
      if (marked[t]) continue;
      marked[t] = 1;
      found.push(t);
    }
  for (const t of found) marked[t] = 0;
  return found;
}
