import type { Connectivity } from '../mesh/connectivity.ts';
import type { Mesh } from '../mesh/mesh.ts';
import { growingPath } from '../select/shortestPath.ts';
import { straightenPath } from '../select/straightenPath.ts';

/** A run of coarse seams, by vertices of the fine mesh. */
export interface CoarseRun {
  readonly vertices: readonly number[];
  /** Whether it may only run over such vertices, as along a plane of symmetry. */
  readonly within?: (vertex: number) => boolean;
}

/**
 * Takes runs of seams on a coarse mesh over to the fine one it was made of: from each of a run's vertices to the next the shortest way,
 * and the whole then run straight and to where seams cost least, within about an edge of the coarse mesh. No run passes over a vertex of
 * another, so that they meet where they met, and cut off nothing between them; only one that is shut in by others, or would go far round them,
 * goes over them.
 *
 * @param costs  what a seam along each edge of the fine mesh costs
 * @param isBarred  whether no run may pass over a vertex, though it may end there: on borders and on seams
 * @param reach  edges of the fine mesh in one of the coarse
 * @returns edges of the fine mesh, run by run
 */
export function ontoSurface(
  mesh: Mesh,
  connectivity: Connectivity,
  runs: readonly CoarseRun[],
  costs: Float64Array,
  lengths: Float64Array,
  isBarred: (vertex: number) => boolean,
  reach: number,
): number[][] {
  const { edgeVertices } = connectivity;
  const used = new Uint8Array(connectivity.vertexEdgeStart.length - 1);
  for (const { vertices } of runs) {
    used[vertices[0]] = 1;
    used[vertices[vertices.length - 1]] = 1;
  }
  // The shortest first: they have the least room to go round others.
  const order = [...runs.keys()].sort((a, b) => runs[a].vertices.length - runs[b].vertices.length);
  const ways: number[][] = runs.map(() => []);
  for (const r of order) {
    const { vertices, within = () => true } = runs[r];
    const own = new Set(vertices);
    const end = vertices[vertices.length - 1];
    const isFree = (v: number) => v === end || (!used[v] && !isBarred(v) && within(v));
    const way = vertexWay(mesh, connectivity, vertices, (v) => own.has(v) || isFree(v), lengths);
    if (way.length === 0) continue;
    const straight =
      vertices[0] === end
        ? way
        : straightenPath(mesh, connectivity, vertices[0], way, (e) => costs[e], { reach, isFree });
    ways[r] = straight;
    let v = vertices[0];
    for (const e of straight) {
      used[v] = 1;
      v = edgeVertices[2 * e] + edgeVertices[2 * e + 1] - v;
    }
  }
  return ways;
}

/** A way round other runs may be so many times as long as one over them. */
const FAR_ROUND = 1.5;

/** From vertex to vertex the shortest way, without running back on itself. */
function vertexWay(
  mesh: Mesh,
  connectivity: Connectivity,
  vertices: readonly number[],
  isFree: (vertex: number) => boolean,
  lengths: Float64Array,
): number[] {
  const { edgeVertices } = connectivity;
  const way: number[] = [];
  const passed = new Map<number, number>([[vertices[0], 0]]);
  let at = vertices[0];
  for (const to of vertices.slice(1)) {
    if (at === to) continue;
    const blocked = (e: number) =>
      (!isFree(edgeVertices[2 * e]) && edgeVertices[2 * e] !== at) ||
      (!isFree(edgeVertices[2 * e + 1]) && edgeVertices[2 * e + 1] !== at);
    let path = growingPath(connectivity, at, (e) => (blocked(e) ? Infinity : lengths[e]));
    path.grow(to);
    if (path.cost[to] > FAR_ROUND * straightLine(mesh, at, to)) {
      // Shut in by others: over them, rather than not at all or far round.
      const over = growingPath(connectivity, at, (e) => lengths[e]);
      over.grow(to);
      if (path.cost[to] > FAR_ROUND * over.cost[to]) path = over;
    }
    for (const e of path.edgesTo(to)) {
      const next = edgeVertices[2 * e] + edgeVertices[2 * e + 1] - at;
      const before = passed.get(next);
      if (before !== undefined && !(next === vertices[0] && to === vertices[0])) {
        way.length = before;
        for (const [v, i] of passed) if (i > before) passed.delete(v);
      } else {
        way.push(e);
        passed.set(next, way.length);
      }
      at = next;
    }
  }
  return way;
}

const straightLine = ({ positions }: Mesh, a: number, b: number): number =>
  Math.hypot(...[0, 1, 2].map((k) => positions[3 * a + k] - positions[3 * b + k]));
