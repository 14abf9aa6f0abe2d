import FlatQueue from 'flatqueue';
import type { Connectivity } from '../mesh/connectivity.ts';
import type { Mesh } from '../mesh/mesh.ts';

export interface Path {
  /** Least cost of every vertex reached, Infinity elsewhere; while the ways grow, no less than the least. */
  readonly cost: Float64Array;
  /** The edge by which each vertex was reached, -1 for the start and what was not: the tree of least-cost ways. */
  readonly via: Int32Array;
  /** Edges from the start to a vertex, in order; empty when it was not reached. */
  edgesTo(vertex: number): number[];
}

/** Ways that go on growing where they were left. */
export interface GrowingPath extends Path {
  /**
   * Goes on until the way to a vertex is found; without one until all are.
   *
   * @param most  vertices that are passed at most
   * @returns whether there is nothing more to find
   */
  grow(target?: number, most?: number): boolean;
}

/**
 * Least-cost ways along edges from one vertex (Dijkstra 1959), or from the nearest of some, with a priority queue, found as far as they
 * are asked for.
 *
 * @param costOf  cost of an edge, 0 or more; Infinity forbids it
 */
export function growingPath(
  connectivity: Pick<Connectivity, 'edgeVertices' | 'vertexEdges' | 'vertexEdgeStart'>,
  start: number | Iterable<number>,
  costOf: (edge: number) => number,
): GrowingPath {
  const { edgeVertices, vertexEdges, vertexEdgeStart } = connectivity;
  const vertices = vertexEdgeStart.length - 1;
  const cost = new Float64Array(vertices).fill(Infinity);
  const via = new Int32Array(vertices).fill(-1);
  const settled = new Uint8Array(vertices);
  // Vertices by cost; one whose cost fell is simply pushed again.
  const queue = new FlatQueue<number>();
  for (const v of typeof start === 'number' ? [start] : start) {
    cost[v] = 0;
    queue.push(v, 0);
  }
  return {
    cost,
    via,
    grow(target, most = Infinity) {
      if (target !== undefined && settled[target]) return true;
      for (let left = most; left > 0; ) {
        const v = queue.pop();
        if (v === undefined) return true;
        if (settled[v]) continue;
        settled[v] = 1;
        left--;
        for (let i = vertexEdgeStart[v]; i < vertexEdgeStart[v + 1]; i++) {
          const e = vertexEdges[i];
          const to = edgeVertices[2 * e] + edgeVertices[2 * e + 1] - v;
          const reached = cost[v] + costOf(e);
          if (reached < cost[to]) {
            cost[to] = reached;
            via[to] = e;
            queue.push(to, reached);
          }
        }
        if (v === target) return true;
      }
      return false;
    },
    edgesTo(vertex) {
      const edges: number[] = [];
      for (let v = vertex; via[v] >= 0; v = edgeVertices[2 * via[v]] + edgeVertices[2 * via[v] + 1] - v) {
        edges.push(via[v]);
      }
      return edges.reverse();
    },
  };
}

/**
 * Least-cost ways from one vertex, to one or to all others: see `growingPath`.
 *
 * @param target  stop once it is reached; undefined for all vertices
 */
export function shortestPath(
  connectivity: Connectivity,
  start: number,
  target: number | undefined,
  costOf: (edge: number) => number,
): Path {
  const path = growingPath(connectivity, start, costOf);
  path.grow(target);
  return path;
}

export function edgeLength(mesh: Mesh, connectivity: Connectivity, edge: number): number {
  const a = 3 * connectivity.edgeVertices[2 * edge];
  const b = 3 * connectivity.edgeVertices[2 * edge + 1];
  const p = mesh.positions;
  return Math.hypot(p[a] - p[b], p[a + 1] - p[b + 1], p[a + 2] - p[b + 2]);
}
