import { bucket } from '../mesh/connectivity.ts';
import type { IntrinsicTriangles } from '../surface/coarsen.ts';
import { type AreaTerm, areaTerm } from './distortion.ts';

/** Triangles at each of some vertices that are no neighbours of each other. */
export interface Stars {
  readonly start: Uint32Array;
  readonly triangles: Uint32Array;
}

export function starsOf(triangles: Uint32Array, vertices: Uint32Array, vertexCount: number): Stars {
  const number = new Int32Array(vertexCount).fill(-1);
  vertices.forEach((v, i) => {
    number[v] = i;
  });
  const owner = new Uint32Array(triangles.length / 3).fill(vertices.length);
  for (let c = 0; c < triangles.length; c++)
    if (number[triangles[c]] >= 0) owner[Math.floor(c / 3)] = number[triangles[c]];
  const { start, items } = bucket(owner, vertices.length + 1);
  return { start, triangles: items };
}

/** Halvings of the way out from the neighbour before there must be room. */
const MOST_HALVINGS = 48;
/** Least area of a triangle that counts as room, as a part of the star's. */
const LEAST = 1e-9;
/** Looks about in a star that end when a look is this part of the first. */
const FINEST = 0.03;
const DIRECTIONS = 8;
const MOST_LOOKS = 40;

/** A vertex that comes back, and the triangles at it. */
export interface Star {
  readonly vertex: number;
  /** The neighbour that had taken its triangles over, and whose fan covers them. */
  readonly into: number;
  /** The sides of its rim in pairs of vertices, each with the vertex a triangle. */
  readonly rim: readonly number[];
  /** Their shapes on the surface, three numbers each: see `apexOver`. */
  readonly shapes: readonly number[];
}

/** The star of the i-th vertex of those that the stars are of. */
export function starAt(
  { triangles, lengths }: IntrinsicTriangles,
  { start, triangles: inStars }: Stars,
  i: number,
  vertex: number,
  into: number,
): Star {
  const rim: number[] = [];
  const shapes: number[] = [];
  for (let k = start[i]; k < start[i + 1]; k++) {
    const first = 3 * inStars[k];
    const at = triangles[first] === vertex ? 0 : triangles[first + 1] === vertex ? 1 : 2;
    const [side, last] = [first + ((at + 1) % 3), first + ((at + 2) % 3)];
    rim.push(triangles[side], triangles[last]);
    shapes.push(...apexOver(lengths[side], lengths[last], lengths[first + at]));
  }
  return { vertex, into, rim, shapes };
}

/**
 * Places a vertex that comes back where the energy of its triangles is least, by looking about from a place that is known to be valid:
 * beside the neighbour whose fan covers its star, along the middle of the fan, near enough to it.
 *
 * @param uv  `2 × vertexCount`, valid for the coarser mesh; receives the place
 */
export function placeInStar(
  { vertex, into, rim, shapes }: Star,
  uv: Float64Array,
  term: AreaTerm = symmetric,
): void {
  const energyAt = (x: number, y: number): number => starEnergy(uv, rim, shapes, x, y, term);

  let [x, y, value] = roomBeside(into, rim, uv, energyAt);
  // Look about, ever nearer.
  let reach = 0.25 * extentOf(into, rim, uv);
  const finest = FINEST * reach;
  for (let looks = 0; looks < MOST_LOOKS && reach > finest && value < Infinity; looks++) {
    let [bx, by, best] = [x, y, value];
    for (let d = 0; d < DIRECTIONS; d++) {
      const angle = (2 * Math.PI * d) / DIRECTIONS;
      const [px, py] = [x + reach * Math.cos(angle), y + reach * Math.sin(angle)];
      const there = energyAt(px, py);
      if (there < best) [bx, by, best] = [px, py, there];
    }
    if (best < value) [x, y, value] = [bx, by, best];
    else reach *= 0.5;
  }
  uv[2 * vertex] = x;
  uv[2 * vertex + 1] = y;
}

const symmetric = areaTerm(1);

/** A valid place near u, as far from it as halving allows. */
function roomBeside(
  u: number,
  rim: readonly number[],
  uv: Float64Array,
  energyAt: (x: number, y: number) => number,
): [number, number, number] {
  const [ux, uy] = [uv[2 * u], uv[2 * u + 1]];
  // The middle of the star's rim first: where it is valid it is best.
  let [cx, cy] = [0, 0];
  for (let k = 0; k < rim.length; k += 2) {
    cx += (uv[2 * rim[k]] + uv[2 * rim[k + 1]]) / rim.length;
    cy += (uv[2 * rim[k] + 1] + uv[2 * rim[k + 1] + 1]) / rim.length;
  }
  const [dx, dy] = awayFrom(u, rim, uv);
  let length = extentOf(u, rim, uv);
  let best: [number, number, number] = [cx, cy, energyAt(cx, cy)];
  for (let tries = 0; tries < MOST_HALVINGS; tries++, length *= 0.5) {
    const [x, y] = [ux + length * dx, uy + length * dy];
    const value = energyAt(x, y);
    if (value < best[2]) best = [x, y, value];
    else if (best[2] < Infinity) break;
  }
  return best;
}

/** The direction from u into its fan over the star, so that every triangle of the star faces up near enough to u. */
function awayFrom(u: number, rim: readonly number[], uv: Float64Array): [number, number] {
  // Of the two sides of the rim at u, the ends that are not u: the star lies between them, from `after` to `before`.
  let [before, after] = [-1, -1];
  for (let k = 0; k < rim.length; k += 2) {
    if (rim[k] === u) after = rim[k + 1];
    if (rim[k + 1] === u) before = rim[k];
  }
  const toward = (w: number) => Math.atan2(uv[2 * w + 1] - uv[2 * u + 1], uv[2 * w] - uv[2 * u]);
  if (after >= 0 && before >= 0) {
    // v lies to the left of u → after and of before → u.
    const from = toward(after);
    let turn = toward(before) - from;
    if (turn <= 0) turn += 2 * Math.PI;
    return [Math.cos(from + turn / 2), Math.sin(from + turn / 2)];
  }
  // On a border only one of them is there: v goes on beyond the other end of the fan, less than a half turn away.
  const [side, far] = after >= 0 ? [1, farEnd(rim, 0)] : [-1, farEnd(rim, 1)];
  const from = toward(after >= 0 ? after : before);
  let turn = side * (toward(far) - from);
  if (turn <= 0) turn += 2 * Math.PI;
  const angle = from + side * Math.min(turn, 0.6 * Math.PI);
  return [Math.cos(angle), Math.sin(angle)];
}

/** The end of an open rim: the vertex that is only last (0) or only first (1) of its sides. */
export function farEnd(rim: readonly number[], which: 0 | 1): number {
  for (let k = 1 - which; k < rim.length; k += 2) {
    let alone = true;
    for (let m = which; m < rim.length; m += 2) if (rim[m] === rim[k]) alone = false;
    if (alone) return rim[k];
  }
  return rim[1 - which];
}

function extentOf(u: number, rim: readonly number[], uv: Float64Array): number {
  let far = 0;
  for (const w of rim) far = Math.max(far, Math.hypot(uv[2 * w] - uv[2 * u], uv[2 * w + 1] - uv[2 * u + 1]));
  return far;
}

/** Least height of a triangle, as a part of its longest side: see `restTriangles`. */
const FLOOR = 1e-5;

/**
 * A triangle by its sides ab, bc and ca, in its own plane.
 *
 * @returns x of b, then x and y of c, with a in the origin
 */
export function apexOver(ab: number, bc: number, ca: number): [number, number, number] {
  const longest = Math.max(ab, bc, ca) || Number.MIN_VALUE ** 0.25;
  const base = Math.max(ab, FLOOR * longest);
  const x = (ab * ab + ca * ca - bc * bc) / (2 * base);
  return [base, x, Math.max(Math.sqrt(Math.max(0, ca * ca - x * x)), FLOOR * longest)];
}

/** Energy of the triangles of a star with its vertex at (x, y), weighed by area; Infinity where one faces down. */
export function starEnergy(
  uv: Float64Array,
  rim: readonly number[],
  shapes: readonly number[],
  x: number,
  y: number,
  term: AreaTerm = symmetric,
): number {
  let sum = 0;
  for (let k = 0, s = 0; k < rim.length; k += 2, s += 3) {
    const [a, b] = [2 * rim[k], 2 * rim[k + 1]];
    const [base, along, height] = [shapes[s], shapes[s + 1], shapes[s + 2]];
    const j0 = (uv[b] - uv[a]) / base;
    const j2 = (uv[b + 1] - uv[a + 1]) / base;
    const j1 = (x - uv[a] - j0 * along) / height;
    const j3 = (y - uv[a + 1] - j2 * along) / height;
    const det = j0 * j3 - j1 * j2;
    if (!(det > LEAST)) return Infinity;
    term(det, DERIVATIVES);
    sum += base * height * (j0 * j0 + j1 * j1 + j2 * j2 + j3 * j3) * DERIVATIVES[0];
  }
  return sum;
}

const DERIVATIVES = new Float64Array(3);
