import type { Connectivity } from '../mesh/connectivity.ts';
import type { Mesh } from '../mesh/mesh.ts';
import { type GrowingPath, growingPath } from '../select/shortestPath.ts';
import { straightenPath } from '../select/straightenPath.ts';

/** Starts whose ways are kept: those of the last points of a route. */
const MOST_STARTS = 8;

/** Ways over one mesh by one set of costs; what was searched is kept and gone on with. */
export interface Router {
  /** Ways from a vertex, as far as they have been found. */
  from(start: number): GrowingPath;
  /**
   * The way from one vertex to another, run straight.
   *
   * @returns edges in order; undefined where none leads there
   */
  leg(start: number, end: number): readonly number[] | undefined;
}

/**
 * @param costs  of every edge, more than 0; Infinity forbids it
 */
export function router(mesh: Mesh, connectivity: Connectivity, costs: Float64Array): Router {
  const costOf = (e: number): number => costs[e];
  const starts = new Map<number, GrowingPath>();
  const legs = new Map<string, readonly number[]>();
  const from = (start: number): GrowingPath => {
    const path = starts.get(start) ?? growingPath(connectivity, start, costOf);
    // The one used last is the last to go.
    starts.delete(start);
    starts.set(start, path);
    if (starts.size > MOST_STARTS) starts.delete(starts.keys().next().value as number);
    return path;
  };
  return {
    from,
    leg(start, end) {
      if (start === end) return [];
      const key = `${start} ${end}`;
      const known = legs.get(key);
      if (known) return known;
      const path = from(start);
      path.grow(end);
      if (path.cost[end] === Infinity) return undefined;
      const edges = straightenPath(mesh, connectivity, start, path.edgesTo(end), costOf);
      if (legs.size > 500) legs.clear();
      legs.set(key, edges);
      return edges;
    },
  };
}
