import { StoppedError } from '../errors.ts';
import { faceCount } from '../mesh/mesh.ts';
import { type Context, share } from '../progress.ts';
import { edgeLength } from '../select/shortestPath.ts';
import type { CoarseSurface } from '../surface/coarseSurface.ts';
import { facesOfShell, shellsFromSeams } from '../surface/shells.ts';
import { clusterSeams } from './clusterSeams.ts';
import { type SeamRun, seamRuns } from './seamRuns.ts';
import { sewWhileFlat } from './sewWhileFlat.ts';
import { treeSeams } from './treeSeams.ts';

export interface CoarseSeamsOptions {
  /** L2 stretch that no shell may exceed. */
  readonly most: number;
  /** A shell with less than this part of the surface is joined to a neighbour, if it costs twice the stretch. */
  readonly smallest: number;
  /** Steps of relaxing when a shell is tried. */
  readonly relaxSteps: number;
}

/** Edges of a run of which the end of a cut is moved, at a time; on a small surface, one. */
const STEP = 4;
const SMALL = 400;
/** Surfaces of fewer triangles are cut up both ways. */
const FEW = 600;
/** From here on a tighter bound is tried as well. */
const LAX = 1.1;

/**
 * Seams of a surface, found from a tree that joins its tips (`treeSeams`), hidden or less so, or from its largest normal clusters that lie
 * flat: whole runs between two shells are sewn while every shell lies flat, then runs bit by bit, which leaves darts; at last shells that are
 * too small are joined to others.
 *
 * @param costs  what a seam along each edge costs
 * @returns 1 for every cut edge
 * @throws StoppedError
 */
export function coarseSeams(
  surface: CoarseSurface,
  costs: Float64Array,
  { most, smallest, relaxSteps }: CoarseSeamsOptions,
  context: Context,
): Uint8Array {
  const { mesh, connectivity, image } = surface;
  const length = Float64Array.from(connectivity.isInterior.keys(), (e) => edgeLength(mesh, connectivity, e));
  const mean = length.reduce((sum, x) => sum + x, 0) / (length.length || 1);
  const onBorder = new Uint8Array(surface.vertex.length);
  connectivity.isInterior.forEach((isInterior, e) => {
    if (!isInterior) for (let k = 0; k < 2; k++) onBorder[connectivity.edgeVertices[2 * e + k]] = 1;
  });
  const setsOf = (longest: number) => (seams: Uint8Array) =>
    mirrored(
      surface,
      seamRuns(
        connectivity,
        (e) => seams[e] === 1,
        (v) => onBorder[v] === 1 || (longest < Infinity && image?.vertices[v] === v),
        (e) => length[e],
        longest,
      ),
    );
  const part = (from: number, to: number): Context => share(context, from, to);
  const options = { costs, relaxSteps };
  const step = faceCount(mesh) < SMALL ? 1 : STEP;
  const sewn = (start: Uint8Array, bound: number, own: Context): Uint8Array => {
    const whole = { ...options, most: bound, setsOf: setsOf(Infinity) };
    const runs = sewWhileFlat(mesh, connectivity, start, whole, share(own, 0, 0.8));
    return sewWhileFlat(
      mesh,
      connectivity,
      runs,
      { ...options, most: bound, setsOf: setsOf(step * mean) },
      share(own, 0.8, 1),
    );
  };
  // What is allowed with less stretch is allowed with more: of several bounds the one that leaves the least seam is taken.
  const bounds = most > LAX ? [most, 1 + (most - 1) / 3] : [most];
  const tried: Uint8Array[] = [];
  try {
    // Where seams hide best they run through saddles, beside which a shell stretches more to lie clear of itself: less hidden ones may cost less in the end.
    const perLength = costs.reduce((sum, c) => sum + c, 0) / (mean * length.length);
    [costs, costs.map((c, e) => 0.5 * (c + perLength * length[e]))].forEach((each, i) => {
      const tree = treeSeams(surface, each, most, part(0.32 * i, 0.32 * i + 0.24));
      if (tree) tried.push(sewn(tree, most, part(0.32 * i + 0.24, 0.32 * (i + 1))));
    });
    // Clusters take longer and leave more seam on what is sculpted; on what has few faces they may leave less.
    if (tried.length === 0 || faceCount(mesh) < FEW)
      bounds.forEach((bound, i) => {
        const own = part(0.65 + (0.3 * i) / bounds.length, 0.65 + (0.3 * (i + 1)) / bounds.length);
        tried.push(sewn(clusterSeams(surface, costs, bound, own), bound, own));
      });
  } catch (error) {
    // Where it was stopped, those that there are by then will do.
    if (!(error instanceof StoppedError) || tried.length === 0) throw error;
  }
  const costOf = (cut: Uint8Array) => cut.reduce((sum, isCut, e) => sum + (isCut ? costs[e] : 0), 0);
  const seams = tried.reduce((best, each) => (costOf(each) < costOf(best) ? each : best));
  const few = smallest * faceCount(mesh);
  const besideSmall = (now: Uint8Array) => {
    const shells = shellsFromSeams(mesh, connectivity, now);
    const isSmall = (f: number) => facesOfShell(shells, shells.faceShell[f]).length < few;
    const beside = ({ edges: [e] }: SeamRun) =>
      [0, 1].map(
        (k) => connectivity.cornerFace[connectivity.edgeCorners[connectivity.edgeCornerStart[e] + k]],
      );
    return setsOf(Infinity)(now).filter((runs) => runs.some((run) => beside(run).some(isSmall)));
  };
  const lax = { ...options, most: 1 + 2 * (most - 1), setsOf: besideSmall };
  return sewWhileFlat(mesh, connectivity, seams, lax, part(0.95, 1));
}

/** Runs with their mirror images, each pair once. */
function mirrored({ image, connectivity }: CoarseSurface, runs: readonly SeamRun[]): (readonly SeamRun[])[] {
  if (!image) return runs.map((run) => [run]);
  const seen = new Set<number>();
  const sets: (readonly SeamRun[])[] = [];
  for (const run of runs) {
    if (seen.has(run.edges[0])) continue;
    for (const e of run.edges) seen.add(e);
    const edges = run.edges.map((e) => image.edges[e]);
    if (edges.some((e) => e < 0 || !connectivity.isInterior[e])) continue;
    if (edges.some((e) => run.edges.includes(e))) {
      // Across the plane, or along it: its own image as a whole, or none.
      if (edges.every((e) => run.edges.includes(e))) sets.push([run]);
      continue;
    }
    for (const e of edges) seen.add(e);
    sets.push([run, { edges, ends: [image.vertices[run.ends[0]], image.vertices[run.ends[1]]] }]);
  }
  return sets;
}
