import type { Context } from '../progress.ts';
import { areaOfTriangle, surfaceArea } from './areas.ts';
import { distanceFrom, farthestVertex } from './distanceFrom.ts';

/** Part of its length at either end of a shape that counts as its end. */
const END = 0.06;
/** A shape whose box along its axes is not longer than wide by this has no way that is lengthwise. */
const LONGER = 1.25;
/** A shape whose ends are nearer to one another than this part of the way along it is bent, and its axis says nothing. */
const STRAIGHT = 0.75;
/** Ways that are longer by less than this factor may be as straight. */
const AS_STRAIGHT = 1.02;

/**
 * Which way a surface is long: from one place at one of its ends to the place at the other from which the way is shortest. Of a straight shape the ends
 * are those of its principal axis, of a bent one what lies farthest along the surface, with its seams closed.
 *
 * @param positions  `3 × vertexCount`
 * @param triangles  of the shell, its seams open
 * @param closed  the vertex each vertex is one with where seams are closed
 * @param mayEnd  whether the way may begin or end at a vertex
 * @returns two vertices; undefined where it is about as wide as long
 */
export function lengthwise(
  positions: Float64Array,
  triangles: Uint32Array,
  closed: Uint32Array,
  mayEnd: (vertex: number) => boolean,
  signal?: Context['signal'],
): readonly [from: number, to: number] | undefined {
  const whole = triangles.map((v) => closed[v]);
  const far = (sources: Iterable<number>) => distanceFrom(positions, whole, sources, signal);
  const one = farthestVertex(far([whole[0]]));
  const fromOne = far([one]);
  const other = farthestVertex(fromOne);
  const length = fromOne[other];
  const { axis, along, ratio } = principalAxis(positions, triangles);
  const [least, most] = spanOf(along);
  if (most - least >= STRAIGHT * length) {
    if (ratio < LONGER) return undefined;
    return facing(along, least, most, (end) => (v) => offAxis(positions, axis, v, end));
  }
  // Bent: as wide as its surface over its length.
  if (length * length < LONGER * surfaceArea(positions, triangles)) return undefined;
  const fromOther = far([other]);
  // How far along each vertex is, by both ends.
  return facing(
    Float64Array.from(closed, (v) => 0.5 * (fromOne[v] - fromOther[v] + length)),
    0,
    length,
  );

  /** Of the upper end the place that lies farthest from the lower, and of the lower that from which the way to it is straightest. */
  function facing(
    at: Float64Array,
    low: number,
    high: number,
    aside?: (end: number) => (v: number) => number,
  ): readonly [number, number] | undefined {
    const band = END * (high - low);
    const vertices = [...at.keys()].filter(mayEnd);
    const from = vertices.filter((v) => at[v] <= low + band);
    const open = (sources: Iterable<number>) => distanceFrom(positions, triangles, sources, signal);
    const reached = open(from);
    const to = vertices.filter((v) => at[v] >= high - band && reached[v] < Infinity);
    if (from.length === 0 || to.length === 0) return undefined;
    const end = leastOf(to, (v) => -reached[v]);
    const back = open([end]);
    const detour = (v: number) => back[v] / (at[end] - at[v]);
    const straightest = from.reduce((least, v) => Math.min(least, detour(v)), Infinity);
    // Lengths hardly tell a straight way from one a little aslant: of those that are about as short, the one least aside.
    return [
      leastOf(
        from.filter((v) => detour(v) <= AS_STRAIGHT * straightest),
        aside?.(end) ?? detour,
      ),
      end,
    ];
  }
}

const leastOf = (items: readonly number[], of: (item: number) => number): number =>
  items.reduce((best, item) => (of(item) < of(best) ? item : best));

/** How far one vertex lies beside another, seen along an axis. */
function offAxis(positions: Float64Array, axis: readonly number[], v: number, w: number): number {
  const way = axis.map((_, k) => positions[3 * v + k] - positions[3 * w + k]);
  const ahead = way.reduce((sum, x, k) => sum + x * axis[k], 0);
  return Math.hypot(...way.map((x, k) => x - ahead * axis[k]));
}

/** Least and greatest of many values. */
function spanOf(values: Float64Array): [number, number] {
  let [least, most] = [Infinity, -Infinity];
  for (const x of values) {
    if (x < least) least = x;
    if (x > most) most = x;
  }
  return [least, most];
}

/**
 * Places of vertices along the principal axis of a surface (the eigenvector of its covariance to the greatest eigenvalue, by power iteration), and by how many
 * times it spreads farther along it than along the next.
 */
function principalAxis(positions: Float64Array, triangles: Uint32Array) {
  const middle = [0, 0, 0];
  const c = new Float64Array(9);
  let whole = 0;
  const each = (take: (weight: number, place: readonly number[]) => void): void => {
    for (let i = 0; i < triangles.length; i += 3) {
      const [p, q, r] = triangles.subarray(i, i + 3);
      const weight = areaOfTriangle(positions, p, q, r);
      take(
        weight,
        [0, 1, 2].map((k) => (positions[3 * p + k] + positions[3 * q + k] + positions[3 * r + k]) / 3),
      );
    }
  };
  each((weight, place) => {
    whole += weight;
    for (let k = 0; k < 3; k++) middle[k] += weight * place[k];
  });
  for (let k = 0; k < 3; k++) middle[k] /= whole;
  each((weight, place) => {
    for (let j = 0; j < 3; j++)
      for (let k = 0; k < 3; k++) c[3 * j + k] += weight * (place[j] - middle[j]) * (place[k] - middle[k]);
  });
  const [first, spread] = greatestEigenvector(c);
  // Without what runs along the first axis the next is greatest.
  const rest = c.map((x, i) => x - spread * first[Math.floor(i / 3)] * first[i % 3]);
  const [, next] = greatestEigenvector(rest);
  const along = new Float64Array(positions.length / 3);
  for (let v = 0; v < along.length; v++)
    for (let k = 0; k < 3; k++) along[v] += first[k] * positions[3 * v + k];
  return { axis: first, along, ratio: Math.sqrt(spread / Math.max(next, 1e-12 * spread)) };
}

/** Of a symmetric 3 × 3 matrix without negative eigenvalues, by power iteration. */
function greatestEigenvector(m: Float64Array): readonly [vector: readonly number[], value: number] {
  // No axis of a model is likely to be square to it.
  let vector: readonly number[] = [0.48, 0.6, 0.64];
  let value = 0;
  for (let i = 0; i < 200; i++) {
    const next = [0, 1, 2].map((j) => [0, 1, 2].reduce((sum, k) => sum + m[3 * j + k] * vector[k], 0));
    value = Math.hypot(...next);
    if (!(value > 0)) break;
    vector = next.map((x) => x / value);
  }
  return [vector, value];
}
