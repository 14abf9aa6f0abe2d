import type { Connectivity } from '../mesh/connectivity.ts';
import type { Mesh } from '../mesh/mesh.ts';
import type { Context } from '../progress.ts';
import { edgeLength, type Path, shortestPath } from '../select/shortestPath.ts';
import { distanceFrom } from '../surface/distanceFrom.ts';

/** Tips and borders that are tried at most. */
const MOST_TIPS = 4;
const MOST_BORDERS = 3;
/** A tip counts while it is at least this part as far away as the farthest. */
const FAR = 0.25;

/**
 * Cuts that are worth a try on a shell that can lie flat but stretches: from each of its tips the shortest way to the border, the
 * farthest tip first, and from one border to each other. Tips are found by farthest points (Eldar, Lindenbaum, Porat, Zeevi 1997): the
 * vertex farthest from the border, then the one farthest from the border and the ways found so far. Such ways are where distortion can
 * leave a surface that is nearly closed (Gu, Gortler, Hoppe 2002, who lengthen their cut to one extremal point after the other).
 *
 * @param triangles  of the mesh, three vertices each
 * @param loops  its borders
 * @returns edges of each cut
 */
export function singleCuts(
  mesh: Mesh,
  connectivity: Connectivity,
  triangles: Uint32Array,
  loops: readonly Uint32Array[],
  signal?: Context['signal'],
): number[][] {
  const { positions } = mesh;
  const cost = (e: number) => (connectivity.isInterior[e] ? edgeLength(mesh, connectivity, e) : Infinity);
  const cuts: number[][] = [];
  const take = (paths: Path, ends: Iterable<number>): number[] => {
    let nearest = -1;
    for (const v of ends) if (nearest < 0 || paths.cost[v] < paths.cost[nearest]) nearest = v;
    const edges = nearest < 0 ? [] : paths.edgesTo(nearest);
    if (edges.length > 0) cuts.push(edges);
    return edges;
  };

  const border = loops.flatMap((loop) => [...loop]);
  const reached = new Set(border);
  let farthest = 0;
  for (let k = 0; k < MOST_TIPS; k++) {
    const distance = distanceFrom(positions, triangles, reached, signal);
    const tip = greatest(distance);
    if (k === 0) farthest = distance[tip];
    if (!(distance[tip] > FAR * farthest)) break;
    const edges = take(shortestPath(connectivity, tip, undefined, cost), border);
    for (const e of edges) for (let i = 0; i < 2; i++) reached.add(connectivity.edgeVertices[2 * e + i]);
    reached.add(tip);
  }
  for (const loop of loops.slice(1, 1 + MOST_BORDERS)) {
    const distance = distanceFrom(positions, triangles, loops[0], signal);
    const start = loop.reduce((best, v) => (distance[v] < distance[best] ? v : best));
    take(shortestPath(connectivity, start, undefined, cost), loops[0]);
  }
  return cuts;
}

/** Where the greatest finite number stands. */
function greatest(list: Float64Array): number {
  let best = 0;
  for (let i = 0; i < list.length; i++) if (list[i] < Infinity && !(list[i] <= list[best])) best = i;
  return best;
}
