import type { Connectivity } from '../mesh/connectivity.ts';
import type { Mesh } from '../mesh/mesh.ts';
import type { Run } from '../select/orderedRun.ts';
import { edgeLength } from '../select/shortestPath.ts';
import { straightenPath } from '../select/straightenPath.ts';
import { straightRing } from '../select/straightRing.ts';

/** How far, in edges, a way over triangles may leave the run. */
const REACH = 1;

export interface StraightRunOptions {
  readonly reach?: number;
  /** Of an edge, model units; its length when absent. */
  readonly costOf?: (edge: number) => number;
}

/**
 * The same run without the zigzag that it has over triangles, clear of seams.
 *
 * @param seams  1 for each edge that is cut; none of the run itself
 */
export function straightRun(
  {
    mesh,
    connectivity,
    seams,
  }: { readonly mesh: Mesh; readonly connectivity: Connectivity; readonly seams: Uint8Array },
  run: Run,
  { reach = REACH, costOf = (e) => edgeLength(mesh, connectivity, e) }: StraightRunOptions = {},
): number[] {
  const isFree = (v: number): boolean => {
    for (let i = connectivity.vertexEdgeStart[v]; i < connectivity.vertexEdgeStart[v + 1]; i++) {
      const e = connectivity.vertexEdges[i];
      if (!connectivity.isInterior[e] || seams[e]) return false;
    }
    return true;
  };
  const cost = (e: number) => (connectivity.isInterior[e] && !seams[e] ? costOf(e) : Infinity);
  return run.closed
    ? straightRing(mesh, connectivity, run.vertices[0], run.edges, cost, { reach, isFree })
    : straightenPath(mesh, connectivity, run.vertices[0], run.edges, cost, { reach, isFree });
}
