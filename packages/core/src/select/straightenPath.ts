import FlatQueue from 'flatqueue';
import type { Connectivity } from '../mesh/connectivity.ts';
import type { Mesh } from '../mesh/mesh.ts';

/**
 * What a turn by a right angle costs, as a part of what the two edges cost that meet there. It grows with the angle and not with its square, so
 * that a few turns are better than many small ones: over triangles that is what makes a line look straight (see docs/benchmarks.md).
 */
const TURN = 0.8;
/** How many edges to either side of a way a straighter one is looked for. */
const REACH = 6;

export interface StraightenOptions {
  /** How many edges to either side a way may move. */
  readonly reach?: number;
  /** Whether it may run over a vertex between its ends. */
  readonly isFree?: (vertex: number) => boolean;
}

/**
 * The same way run straighter: of all ways near it, the one that costs least when turns cost as well, so that it does not zigzag over
 * triangles. A least-cost way over arcs, an edge with a direction each, so that every turn is known (Caldwell 1961), among the
 * vertices within a few edges of the way.
 *
 * @param edges  of a way, in order from `start`; it may not close
 * @param costOf  cost of an edge, more than 0; Infinity forbids it
 * @returns edges in order from `start` to the same end
 */
export function straightenPath(
  mesh: Mesh,
  connectivity: Connectivity,
  start: number,
  edges: readonly number[],
  costOf: (edge: number) => number,
  { reach = REACH, isFree = () => true }: StraightenOptions = {},
): number[] {
  if (edges.length < 2) return [...edges];
  const { edgeVertices } = connectivity;
  const { near, end } = corridor(connectivity, start, edges, reach, isFree);
  const arcs = arcsWithin(connectivity, near);
  const { edge, to, out } = arcs;
  const directions = directionsOf(mesh, connectivity, arcs);
  const cost = new Float64Array(edge.length).fill(Infinity);
  const via = new Int32Array(edge.length).fill(-1);
  const settled = new Uint8Array(edge.length);
  const queue = new FlatQueue<number>();
  const offer = (arc: number, value: number, from: number): void => {
    if (!(value < cost[arc])) return;
    cost[arc] = value;
    via[arc] = from;
    queue.push(arc, value);
  };
  for (let a = out[near.get(start) as number]; a < out[(near.get(start) as number) + 1]; a++)
    offer(a, costOf(edge[a]), -1);
  const last = near.get(end) as number;
  for (let a = queue.pop(); a !== undefined; a = queue.pop()) {
    if (settled[a]) continue;
    settled[a] = 1;
    if (to[a] === last) {
      const way: number[] = [];
      for (let k = a; k >= 0; k = via[k]) way.push(edge[k]);
      return withoutLoops(way.reverse(), start, edgeVertices);
    }
    const here = costOf(edge[a]);
    for (let b = out[to[a]]; b < out[to[a] + 1]; b++) {
      if (edge[b] === edge[a] || settled[b]) continue;
      const next = costOf(edge[b]);
      let cosine = 0;
      for (let k = 0; k < 3; k++) cosine += directions[3 * a + k] * directions[3 * b + k];
      const angle = Math.acos(Math.max(-1, Math.min(1, cosine)));
      offer(b, cost[a] + next + ((TURN * angle) / Math.PI) * (here + next), a);
    }
  }
  return [...edges];
}

/** Vertices within a few edges of a way, each with a number of its own. */
function corridor(
  { edgeVertices, vertexEdges, vertexEdgeStart }: Connectivity,
  start: number,
  edges: readonly number[],
  reach: number,
  isFree: (vertex: number) => boolean,
) {
  const near = new Map<number, number>([[start, 0]]);
  let end = start;
  let ring: number[] = [start];
  for (const e of edges) {
    end = edgeVertices[2 * e] + edgeVertices[2 * e + 1] - end;
    if (near.has(end)) continue;
    near.set(end, near.size);
    ring.push(end);
  }
  for (let k = 0; k < reach; k++) {
    const next: number[] = [];
    for (const v of ring) {
      for (let i = vertexEdgeStart[v]; i < vertexEdgeStart[v + 1]; i++) {
        const w = edgeVertices[2 * vertexEdges[i]] + edgeVertices[2 * vertexEdges[i] + 1] - v;
        if (near.has(w) || !isFree(w)) continue;
        near.set(w, near.size);
        next.push(w);
      }
    }
    ring = next;
  }
  return { near, end };
}

/** Every edge between some vertices, both ways; arcs from vertex number i: `out[i] … out[i + 1]`. */
interface Arcs {
  readonly edge: number[];
  readonly to: number[];
  readonly out: Uint32Array;
  /** Vertex of the mesh at which each begins. */
  readonly from: number[];
}

function arcsWithin(
  { edgeVertices, vertexEdges, vertexEdgeStart }: Connectivity,
  near: Map<number, number>,
): Arcs {
  const out = new Uint32Array(near.size + 1);
  const edge: number[] = [];
  const to: number[] = [];
  const from: number[] = [];
  for (const [v, number] of near) {
    for (let i = vertexEdgeStart[v]; i < vertexEdgeStart[v + 1]; i++) {
      const e = vertexEdges[i];
      const other = near.get(edgeVertices[2 * e] + edgeVertices[2 * e + 1] - v);
      if (other === undefined) continue;
      edge.push(e);
      to.push(other);
      from.push(v);
    }
    out[number + 1] = edge.length;
  }
  return { edge, to, out, from };
}

/** Unit vectors, `3 × arcs`. */
function directionsOf(
  { positions }: Mesh,
  { edgeVertices }: Connectivity,
  { edge, from }: Arcs,
): Float64Array {
  const directions = new Float64Array(3 * edge.length);
  edge.forEach((e, a) => {
    const i = 3 * from[a];
    const j = 3 * (edgeVertices[2 * e] + edgeVertices[2 * e + 1] - from[a]);
    const [x, y, z] = [0, 1, 2].map((k) => positions[j + k] - positions[i + k]);
    const length = Math.hypot(x, y, z) || 1;
    directions.set([x / length, y / length, z / length], 3 * a);
  });
  return directions;
}

/** Arcs differ where vertices do not: a way over them may come to a vertex twice to save a turn. */
function withoutLoops(edges: readonly number[], start: number, edgeVertices: Uint32Array): number[] {
  const way: number[] = [];
  const vertices = [start];
  const at = new Map([[start, 0]]);
  for (const e of edges) {
    const last = vertices[vertices.length - 1];
    const v = edgeVertices[2 * e] + edgeVertices[2 * e + 1] - last;
    const before = at.get(v);
    if (before === undefined) {
      way.push(e);
      vertices.push(v);
      at.set(v, way.length);
      continue;
    }
    way.length = before;
    for (const gone of vertices.splice(before + 1)) at.delete(gone);
  }
  return way;
}
