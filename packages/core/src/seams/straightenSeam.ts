import { HemError } from '../errors.ts';
import type { Connectivity } from '../mesh/connectivity.ts';
import type { Mesh } from '../mesh/mesh.ts';
import { type Run, runsOfEdges } from '../select/orderedRun.ts';
import { edgeLength } from '../select/shortestPath.ts';
import { straightRun } from './straightRun.ts';

/** How a run of edges runs. */
export interface Course {
  /** Model units. */
  readonly length: number;
  /** Sum of the angles by which it turns at its vertices, radians. */
  readonly turning: number;
}

export interface StraightenedSeam {
  readonly sewn: readonly number[];
  readonly cut: readonly number[];
  readonly before: Course;
  readonly after: Course;
}

/** How far, in edges, a seam may leave where it runs. */
const REACH = 6;

/**
 * Seams run straighter between the same ends and forks: of all ways near each, the one that costs least when turns cost as well (see
 * `straightenPath`), clear of other seams. A run that cannot be straighter stays as it is.
 *
 * @param edges  seams, one of each run that is meant at least
 * @param costOf  of an edge, such as its length times how much is seen of it
 * @throws HemError when none of them is a seam
 */
export function straightenSeam(
  {
    mesh,
    connectivity,
    seams,
  }: { readonly mesh: Mesh; readonly connectivity: Connectivity; readonly seams: Uint8Array },
  edges: readonly number[],
  costOf: (edge: number) => number,
): StraightenedSeam {
  const { isInterior, edgeVertices } = connectivity;
  const isSeam = (e: number) => seams[e] === 1 && isInterior[e] === 1;
  const meant = new Set(edges.filter(isSeam));
  if (meant.size === 0)
    throw new HemError('no-seam', 'Pick a seam to straighten: none of these edges is one.', edges);
  const onBorder = new Uint8Array(mesh.positions.length / 3);
  for (let e = 0; e < isInterior.length; e++)
    if (!isInterior[e]) onBorder[edgeVertices[2 * e]] = onBorder[edgeVertices[2 * e + 1]] = 1;
  const all = [...seams.keys()].filter(isSeam);
  const runs = runsOfEdges(connectivity, all, (v) => onBorder[v] === 1).filter((run) =>
    run.edges.some((e) => meant.has(e)),
  );
  // Each keeps clear of the others as they run by then.
  const now = seams.slice();
  const [sewn, cut] = [new Set<number>(), new Set<number>()];
  let [before, after] = [NO_COURSE, NO_COURSE];
  for (const run of runs) {
    for (const e of run.edges) now[e] = 0;
    const found = straightRun({ mesh, connectivity, seams: now }, run, { reach: REACH, costOf });
    const [fresh] = runsOfEdges(connectivity, found);
    const [old, next] = [courseOf(mesh, connectivity, run), courseOf(mesh, connectivity, fresh)];
    const better = fresh.closed === run.closed && next.turning < old.turning;
    const kept = better ? fresh.edges : run.edges;
    for (const e of kept) now[e] = 1;
    before = sumOf(before, old);
    after = sumOf(after, better ? next : old);
    if (!better) continue;
    const isKept = new Set(kept);
    const was = new Set(run.edges);
    for (const e of run.edges) if (!isKept.has(e)) sewn.add(e);
    for (const e of kept) if (!was.has(e)) cut.add(e);
  }
  return { sewn: [...sewn], cut: [...cut], before, after };
}

const NO_COURSE: Course = { length: 0, turning: 0 };

const sumOf = (a: Course, b: Course): Course => ({
  length: a.length + b.length,
  turning: a.turning + b.turning,
});

/** How long a run is, and how much it turns. */
export function courseOf(mesh: Mesh, connectivity: Connectivity, { edges, vertices, closed }: Run): Course {
  let [length, turning] = [0, 0];
  const { positions: p } = mesh;
  const around = closed ? [...vertices, vertices[1]] : vertices;
  for (const e of edges) length += edgeLength(mesh, connectivity, e);
  for (let i = 1; i + 1 < around.length; i++) {
    const [a, b, c] = [3 * around[i - 1], 3 * around[i], 3 * around[i + 1]];
    let [dot, one, two] = [0, 0, 0];
    for (let k = 0; k < 3; k++) {
      const [u, w] = [p[b + k] - p[a + k], p[c + k] - p[b + k]];
      dot += u * w;
      one += u * u;
      two += w * w;
    }
    if (one > 0 && two > 0) turning += Math.acos(Math.max(-1, Math.min(1, dot / Math.sqrt(one * two))));
  }
  return { length, turning };
}
