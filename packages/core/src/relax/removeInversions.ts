import { type Factor, release } from '../linear/cholesky.ts';
import { factoriseTriangles, solveTriangles, triangleSystem } from '../linear/triangleSystem.ts';
import { type Context, heedStop } from '../progress.ts';
import type { WeightedTriangles } from '../surface/anyDiagonal.ts';
import { coveredArea, triangleArea } from '../surface/flatArea.ts';
import { type AreaTerm, energy, quadratic } from './distortion.ts';
import { freeTriangles } from './freeTriangles.ts';
import { growOverTriangles } from './growOverTriangles.ts';
import { lineSearch } from './lineSearch.ts';

/** A triangle with less than this part of its due area does not count as facing up. */
const LEAST = 1e-6;
/** Rings of triangles round those that face down that may move, first the fewest. */
const RINGS = [2, 4, 8, 16];
const MOST_STEPS = 150;
/** Steps after which half the triangles that faced down must face up, and how many there may be for it not to matter. */
const [HALF_BY, FEW] = [40, 100];
/** So many times as many triangles facing down as at the start, and the map is tearing rather than turning. */
const TORN = 4;
/** Part of the energy that a step counts as gaining at least, and the least ε. */
const [LEAST_GAIN, LEAST_EPSILON] = [0.1, 1e-10];

/**
 * Turns triangles that face down the right way up, moving as little of the map as will do: Newton steps on the symmetric Dirichlet
 * energy with det J kept from zero by χ = (det J + √(ε² + det J²)) / 2 in its place, which is finite for triangles that face down and
 * ever steeper as ε shrinks (Garanzha, Kaporin, Kudryavtseva, Protais, Ray, Sokolov 2021).
 *
 * @param uv  `2 × vertexCount`, any scale
 * @param fixed  1 for each vertex that stays
 * @param everything  whether at last the whole map may move, which takes long
 * @returns the map with every triangle that may move facing up, or undefined when none was found
 * @throws StoppedError
 */
export function removeInversions(
  whole: WeightedTriangles,
  uv: Float64Array,
  fixed: Uint8Array,
  context: Context,
  everything = true,
): Float64Array | undefined {
  const down = invertedTriangles(whole, uv, LEAST);
  if (down.length === 0) return uv;
  let held: Uint8Array | undefined;
  for (const rings of everything ? [...RINGS, Infinity] : RINGS) {
    const next = heldBeyond(whole.triangles, down, rings, fixed);
    // A shell too small for more rings has been tried already.
    if (held?.every((h, v) => h === next[v])) continue;
    held = next;
    const found = attempt(freeTriangles(whole, held), uv, held, context);
    if (found) return found;
  }
  return undefined;
}

/**
 * Triangles that lie flipped or collapsed.
 *
 * @param part  of its due area at which a triangle counts as collapsed
 */
export function invertedTriangles(
  { triangles, rest }: WeightedTriangles,
  uv: Float64Array,
  part: number,
): number[] {
  const least = (part * coveredArea(triangles, uv)) / rest.totalArea;
  const down: number[] = [];
  for (let t = 0; t < rest.area.length; t++)
    if (!(triangleArea(triangles, uv, t) > least * rest.area[t])) down.push(t);
  return down;
}

/** All vertices but those within some rings of the given triangles, and those that are fixed anyway. */
function heldBeyond(
  triangles: Uint32Array,
  around: readonly number[],
  rings: number,
  fixed: Uint8Array,
): Uint8Array {
  if (rings === Infinity) return fixed;
  const near = new Uint8Array(fixed.length);
  for (const t of around) for (let k = 0; k < 3; k++) near[triangles[3 * t + k]] = 1;
  growOverTriangles(triangles, near, rings - 1);
  return near.map((n, v) => (n && !fixed[v] ? 0 : 1));
}

function attempt(
  part: WeightedTriangles,
  start: Float64Array,
  held: Uint8Array,
  context: Context,
): Float64Array | undefined {
  const { triangles, rest } = part;
  const { signal } = context;
  if (triangles.length === 0) return undefined;
  // The shapes hold at the size at which this part lies.
  const scale = sizeOf(part, start);
  let uv = start.map((x) => x * scale);
  const system = triangleSystem(triangles, held.length, held, { signal });
  let factor: Factor | undefined;
  let least = leastDeterminant(part, uv);
  const atStart = invertedTriangles(part, uv, LEAST).length;
  let epsilon = Math.sqrt(1e-12 + 0.04 * Math.min(least, 0) ** 2);
  try {
    for (let step = 0; step < MOST_STEPS; step++) {
      heedStop(signal);
      if (least > LEAST) return uv.map((x, i) => (held[i >> 1] ? start[i] : x / scale));
      context.report({ fraction: step / MOST_STEPS, uv: uv.map((x) => x / scale) });
      const term = regularised(epsilon);
      const { gradient, hessian } = quadratic(triangles, rest, uv, term, signal);
      factor = factoriseTriangles(system, hessian, { shift: 1e-9, signal, reuse: factor });
      const direction = solveTriangles(
        system,
        factor,
        gradient.map((x) => -x),
        signal,
      );
      let slope = 0;
      for (let i = 0; i < gradient.length; i++) slope += gradient[i] * direction[i];
      const before = energy(triangles, rest, uv, term);
      const found = lineSearch(1, slope, before, (length) => {
        const trial = uv.map((x, i) => x + length * direction[i]);
        heedStop(signal);
        return { trial, value: energy(triangles, rest, trial, term) };
      });
      if (!found) return undefined;
      uv = found.trial;
      least = leastDeterminant(part, uv);
      const most = (step < HALF_BY ? TORN : 0.5) * atStart + FEW;
      if (invertedTriangles(part, uv, LEAST).length > most) return undefined;
      epsilon = steeper(epsilon, least, found.value / before);
    }
    return undefined;
  } finally {
    if (factor) release(factor);
  }
}

/** f = (1 + 1 / χ²) / 2, the symmetric Dirichlet energy where ε is 0. */
function regularised(epsilon: number): AreaTerm {
  return (det, f) => {
    const root = Math.sqrt(epsilon * epsilon + det * det);
    const square = chiOf(det, epsilon) ** 2;
    f[0] = 0.5 * (1 + 1 / square);
    f[1] = -1 / (square * root);
    f[2] = (2 + det / root) / (square * root * root);
  };
}

/** χ, which stands for det J. */
function chiOf(det: number, epsilon: number): number {
  const root = Math.sqrt(epsilon * epsilon + det * det);
  // Far below zero the sum would lose all its digits.
  return det > 0 ? 0.5 * (det + root) : (0.5 * epsilon * epsilon) / (root - det);
}

/** The next ε, less by no more than what the last step has gained allows: too steep too early, and triangles that face down stay so (section 3.2 there). */
function steeper(epsilon: number, least: number, left: number): number {
  const next = (1 - Math.max(LEAST_GAIN, 1 - left)) * chiOf(least, epsilon);
  return least < next ? 2 * Math.sqrt(next * (next - least)) : LEAST_EPSILON;
}

function sizeOf({ triangles, rest }: WeightedTriangles, uv: Float64Array): number {
  const flat = coveredArea(triangles, uv);
  let solid = 0;
  for (let t = 0; t < rest.area.length; t++) solid += rest.local[3 * t] * rest.local[3 * t + 2] * 0.5;
  return flat > 0 ? Math.sqrt(solid / flat) : 1;
}

function leastDeterminant({ triangles, rest: { local } }: WeightedTriangles, uv: Float64Array): number {
  let least = Infinity;
  for (let t = 0; t < triangles.length / 3; t++)
    least = Math.min(least, triangleArea(triangles, uv, t) / (0.5 * local[3 * t] * local[3 * t + 2]));
  return least;
}
