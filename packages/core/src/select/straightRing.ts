import type { Connectivity } from '../mesh/connectivity.ts';
import { disjointSets, findRoot, unite } from '../mesh/disjointSets.ts';
import { faceCount, type Mesh } from '../mesh/mesh.ts';
import { faceNormal } from '../mesh/normals.ts';
import { type StraightenOptions, straightenPath } from './straightenPath.ts';

/** Parts of a ring that are straightened one after the other, each between places that stay for that time; the last moves the start. */
const PARTS = [
  [0, 0.5],
  [0.5, 1],
  [0.25, 0.75],
  [0.75, 1.25],
] as const;
/** How far a part may move, in edges, where the ring slips off what it goes round when it may move as far as is asked for. */
const CLOSER = [2, 1];
/** A ring goes round the same as long as it parts off at least so much of what it did, and at most so much more. */
const SAME = 0.75;
/** A ring of fewer edges has no stairs. */
const SHORTEST = 6;

export interface StraightRingOptions extends StraightenOptions {
  /** Whether the ring goes on leading through its start. */
  readonly fixed?: boolean;
}

/**
 * The same ring run straighter: see `straightenPath`. It still goes once round the same: near the end of a finger a ring that moves far slips
 * off it and goes round nothing, which shows by what it parts off; then it moves less, and where that does not help it stays.
 *
 * @param edges  from `start` round to it, in order
 * @param costOf  cost of an edge, more than 0; Infinity forbids it
 */
export function straightRing(
  mesh: Mesh,
  connectivity: Connectivity,
  start: number,
  edges: readonly number[],
  costOf: (edge: number) => number,
  options: StraightRingOptions = {},
): number[] {
  const before = areaParted(mesh, connectivity, edges);
  for (const reach of [options.reach, ...CLOSER]) {
    const ring = straightened(mesh, connectivity, start, edges, costOf, { ...options, reach });
    const after = areaParted(mesh, connectivity, ring);
    if (Math.abs(after - before) <= (1 - SAME) * before) return ring;
  }
  return [...edges];
}

function straightened(
  mesh: Mesh,
  connectivity: Connectivity,
  start: number,
  edges: readonly number[],
  costOf: (edge: number) => number,
  { fixed = false, isFree = () => true, reach }: StraightRingOptions,
): number[] {
  let ring = [...edges];
  let first = start;
  for (const [from, to] of fixed ? PARTS.slice(0, 3) : PARTS) {
    if (ring.length < SHORTEST) return ring;
    const vertices = verticesAlong(connectivity, first, ring);
    const [a, b] = [from, to].map((part) => Math.floor(part * ring.length));
    const part = Array.from({ length: b - a }, (_, i) => ring[(a + i) % ring.length]);
    const rest = Array.from({ length: ring.length - part.length }, (_, i) => (b + i) % ring.length);
    const taken = new Set(rest.map((i) => vertices[i]));
    const straight = straightenPath(mesh, connectivity, vertices[a], part, costOf, {
      reach,
      isFree: (v) => isFree(v) && !taken.has(v),
    });
    ring = [...straight, ...rest.map((i) => ring[i])];
    // The fixed place stays the first: the ring is turned back to it.
    first = vertices[a];
    const by = fixed ? verticesAlong(connectivity, first, ring).indexOf(start) : 0;
    ring = [...ring.slice(by), ...ring.slice(0, by)];
    if (fixed) first = start;
  }
  return ring;
}

/** Twice how much surface a ring parts from the rest of what it lies on, on the smaller side; 0 where it parts nothing. */
function areaParted(mesh: Mesh, connectivity: Connectivity, ring: readonly number[]): number {
  const { isInterior, edgeCorners, edgeCornerStart, cornerFace } = connectivity;
  // Along a border there is nothing on the other side.
  const inside = ring.find((e) => isInterior[e]);
  if (inside === undefined) return 0;
  const faceAt = (e: number, side: number) => cornerFace[edgeCorners[edgeCornerStart[e] + side]];
  const closed = new Set(ring);
  const sets = disjointSets(faceCount(mesh));
  for (let e = 0; e < isInterior.length; e++)
    if (isInterior[e] && !closed.has(e)) unite(sets, faceAt(e, 0), faceAt(e, 1));
  const [one, other] = [0, 1].map((side) => findRoot(sets, faceAt(inside, side)));
  if (one === other) return 0;
  const area = new Map([
    [one, 0],
    [other, 0],
  ]);
  for (let f = 0; f < faceCount(mesh); f++) {
    const root = findRoot(sets, f);
    const sum = area.get(root);
    if (sum !== undefined) area.set(root, sum + Math.hypot(...faceNormal(mesh, f)));
  }
  return Math.min(...area.values());
}

function verticesAlong({ edgeVertices }: Connectivity, start: number, edges: readonly number[]): number[] {
  const vertices = [start];
  for (const e of edges) {
    const v = vertices[vertices.length - 1];
    vertices.push(edgeVertices[2 * e] + edgeVertices[2 * e + 1] - v);
  }
  return vertices;
}
