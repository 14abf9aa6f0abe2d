import type { Connectivity } from '../mesh/connectivity.ts';
import type { Mesh } from '../mesh/mesh.ts';
import { type StraightenOptions, straightenPath } from './straightenPath.ts';

/** Parts of a ring that are straightened one after the other, each between places that stay for that time; the last moves the start. */
const PARTS = [
  [0, 0.5],
  [0.5, 1],
  [0.25, 0.75],
  [0.75, 1.25],
] as const;
/** A ring of fewer edges has no stairs. */
const SHORTEST = 6;

export interface StraightRingOptions extends StraightenOptions {
  /** Whether the ring goes on leading through its start. */
  readonly fixed?: boolean;
}

/**
 * The same ring run straighter, and still once round: see `straightenPath`.
 *
 * @param edges  from `start` round to it, in order
 * @param costOf  cost of an edge, more than 0; Infinity forbids it
 */
export function straightRing(
  mesh: Mesh,
  links: Connectivity,
  start: number,
  edges: readonly number[],
  costOf: (edge: number) => number,
  { fixed = false, isFree = () => true, reach }: StraightRingOptions = {},
): number[] {
  let ring = [...edges];
  let first = start;
  for (const [from, to] of fixed ? PARTS.slice(0, 3) : PARTS) {
    if (ring.length < SHORTEST) return ring;
    const vertices = verticesAlong(links, first, ring);
    const [a, b] = [from, to].map((part) => Math.floor(part * ring.length));
    const part = Array.from({ length: b - a }, (_, i) => ring[(a + i) % ring.length]);
    const rest = Array.from({ length: ring.length - part.length }, (_, i) => (b + i) % ring.length);
    const taken = new Set(rest.map((i) => vertices[i]));
    const straight = straightenPath(mesh, links, vertices[a], part, costOf, {
      reach,
      isFree: (v) => isFree(v) && !taken.has(v),
    });
    ring = [...straight, ...rest.map((i) => ring[i])];
    // The fixed place stays the first: the ring is turned back to it.
    first = vertices[a];
    const by = fixed ? verticesAlong(links, first, ring).indexOf(start) : 0;
    ring = [...ring.slice(by), ...ring.slice(0, by)];
    if (fixed) first = start;
  }
  return ring;
}

function verticesAlong({ edgeVertices }: Connectivity, start: number, edges: readonly number[]): number[] {
  const vertices = [start];
  for (const e of edges) {
    const v = vertices[vertices.length - 1];
    vertices.push(edgeVertices[2 * e] + edgeVertices[2 * e + 1] - v);
  }
  return vertices;
}
