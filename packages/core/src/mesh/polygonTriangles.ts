import earcut from 'earcut';
import { constrainedDelaunay } from './constrainedDelaunay.ts';

/** Corners up to which ears are cut off: what that takes grows with their square, and with their cube where an outline crosses itself. */
const EARS = 100;

/**
 * Splits a polygon in the plane into triangles: small ones by cutting off ears (earcut), large ones by a constrained Delaunay
 * triangulation, in time that hardly grows faster than their corners. Holes are reached by bridges, sides that are passed twice. An
 * outline that crosses itself defeats both, and gets a fan.
 *
 * @param outline  `2 × size`, at least three corners, anticlockwise or clockwise
 * @returns three corners a triangle, anticlockwise, `3 × (size - 2)`
 */
export function polygonTriangles(outline: readonly number[]): number[] {
  const size = outline.length / 2;
  if (size <= EARS) {
    const ears = orient(earcut([...outline]), outline);
    return ears.length === 3 * (size - 2) ? ears : fan(size);
  }
  return largePolygon(outline) ?? fan(size);
}

function fan(size: number): number[] {
  const triangles: number[] = [];
  for (let k = 1; k + 1 < size; k++) triangles.push(0, k, k + 1);
  return triangles;
}

/** Earcut does not promise a winding: make every triangle anticlockwise. */
function orient(triangles: number[], outline: readonly number[]): number[] {
  for (let t = 0; t < triangles.length; t += 3) {
    if (area(outline, triangles[t], triangles[t + 1], triangles[t + 2]) < 0)
      [triangles[t + 1], triangles[t + 2]] = [triangles[t + 2], triangles[t + 1]];
  }
  return triangles;
}

/** Twice the signed area of a triangle. */
const area = (p: readonly number[] | Float64Array, a: number, b: number, c: number): number =>
  (p[2 * b] - p[2 * a]) * (p[2 * c + 1] - p[2 * a + 1]) -
  (p[2 * c] - p[2 * a]) * (p[2 * b + 1] - p[2 * a + 1]);

/** @returns undefined unless every corner gets its part of the inside, once */
function largePolygon(outline: readonly number[]): number[] | undefined {
  const size = outline.length / 2;
  const places = normalised(outline);
  const { point, points } = distinct(places);
  const sides: [number, number][] = [];
  /** How often a side is passed from its lower to its higher point, less the times it is passed back. */
  const passes = new Map<number, number>();
  const keyOf = (a: number, b: number) => Math.min(a, b) * size + Math.max(a, b);
  let whole = 0;
  for (let k = 0; k < size; k++) {
    const [a, b] = [point[k], point[(k + 1) % size]];
    whole +=
      places[2 * k] * places[2 * ((k + 1) % size) + 1] - places[2 * ((k + 1) % size)] * places[2 * k + 1];
    if (a === b) return undefined;
    const key = keyOf(a, b);
    if (!passes.has(key)) sides.push([a, b]);
    passes.set(key, (passes.get(key) ?? 0) + (a < b ? 1 : -1));
  }
  const all = constrainedDelaunay(points, sides);
  if (!all) return undefined;
  const inside = insideTriangles(all, (a, b) => passes.get(keyOf(a, b)) ?? 0);
  if (inside.length !== size - 2) return undefined;
  // Corners run anticlockwise round the inside, or all of them clockwise.
  const turned = whole < 0;
  const cornerAt = cornerChooser(places, point, points, turned);
  const triangles: number[] = [];
  let covered = 0;
  for (const t of inside) {
    // Delaunator winds clockwise where y points up.
    const [a, b, c] = [all.triangles[3 * t], all.triangles[3 * t + 2], all.triangles[3 * t + 1]];
    covered += area(points, a, b, c);
    triangles.push(cornerAt(a, b, c), cornerAt(b, c, a), cornerAt(c, a, b));
  }
  if (Math.abs(covered - Math.abs(whole)) > 1e-9 * covered) return undefined;
  // Every corner has a triangle: what lies flat is numbered by them.
  return new Set(triangles).size === size ? triangles : undefined;
}

/** About the origin and of size 1. */
function normalised(outline: readonly number[]): Float64Array {
  const [low, high] = [
    [Infinity, Infinity],
    [-Infinity, -Infinity],
  ];
  for (let i = 0; i < outline.length; i++) {
    low[i & 1] = Math.min(low[i & 1], outline[i]);
    high[i & 1] = Math.max(high[i & 1], outline[i]);
  }
  const extent = Math.max(high[0] - low[0], high[1] - low[1]) || 1;
  return Float64Array.from(outline, (x, i) => (x - (low[i & 1] + high[i & 1]) / 2) / extent);
}

/** Points that lie at exactly one place are one: `point` names that of each corner. */
function distinct(places: Float64Array): { readonly point: Uint32Array; readonly points: Float64Array } {
  const known = new Map<string, number>();
  const list: number[] = [];
  const point = Uint32Array.from({ length: places.length / 2 }, (_, k) => {
    const key = `${places[2 * k]} ${places[2 * k + 1]}`;
    let at = known.get(key);
    if (at === undefined) {
      at = known.size;
      known.set(key, at);
      list.push(places[2 * k], places[2 * k + 1]);
    }
    return at;
  });
  return { point, points: Float64Array.from(list) };
}

/** Triangles that the outline goes round, counted from outside over its sides (winding numbers). */
function insideTriangles(
  { triangles, halfedges }: { readonly triangles: Uint32Array; readonly halfedges: Int32Array },
  passes: (a: number, b: number) => number,
): number[] {
  const UNKNOWN = 2 ** 30;
  const winding = new Int32Array(triangles.length / 3).fill(UNKNOWN);
  const queue: number[] = [];
  const end = (side: number) => triangles[side % 3 === 2 ? side - 2 : side + 1];
  /** What is added by going over a side out of the triangle that it belongs to. */
  const step = (side: number) => {
    const [a, b] = [triangles[side], end(side)];
    return a < b ? passes(a, b) : -passes(a, b);
  };
  for (let side = 0; side < triangles.length; side++) {
    const t = Math.floor(side / 3);
    if (halfedges[side] >= 0 || winding[t] !== UNKNOWN) continue;
    winding[t] = -step(side);
    queue.push(t);
  }
  for (const t of queue) {
    for (let side = 3 * t; side < 3 * t + 3; side++) {
      const other = Math.floor(halfedges[side] / 3);
      if (halfedges[side] < 0 || winding[other] !== UNKNOWN) continue;
      winding[other] = winding[t] + step(side);
      queue.push(other);
    }
  }
  return [...winding.keys()].filter((t) => winding[t] !== 0 && winding[t] !== UNKNOWN);
}

/**
 * Tells which corner of the outline a triangle has at a point: where several lie at one place, that between whose sides the triangle
 * lies.
 */
function cornerChooser(places: Float64Array, point: Uint32Array, points: Float64Array, turned: boolean) {
  const size = point.length;
  const corners: number[][] = Array.from({ length: points.length / 2 }, () => []);
  for (let k = 0; k < size; k++) corners[point[k]].push(k);
  const angle = (from: number, x: number, y: number) =>
    Math.atan2(y - points[2 * from + 1], x - points[2 * from]);
  const between = (from: number, to: number) => (to - from + 4 * Math.PI) % (2 * Math.PI);
  return (a: number, b: number, c: number): number => {
    if (corners[a].length === 1) return corners[a][0];
    const middle = angle(a, (points[2 * b] + points[2 * c]) / 2, (points[2 * b + 1] + points[2 * c + 1]) / 2);
    const sector = (k: number) => {
      const [before, after] = [(k + size - 1) % size, (k + 1) % size];
      const [first, last] = turned ? [before, after] : [after, before];
      const start = angle(a, places[2 * first], places[2 * first + 1]);
      const wide = between(start, angle(a, places[2 * last], places[2 * last + 1])) || 2 * Math.PI;
      return { inside: between(start, middle) < wide, wide };
    };
    return corners[a].find((k) => sector(k).inside) ?? corners[a][0];
  };
}
