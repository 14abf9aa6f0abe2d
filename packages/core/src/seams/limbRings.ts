import type { Connectivity } from '../mesh/connectivity.ts';
import type { Mesh } from '../mesh/mesh.ts';
import { faceNormal } from '../mesh/normals.ts';
import { type Context, share } from '../progress.ts';
import { connectedFaces } from '../select/connected.ts';
import { cutBetween, EITHER_SIDE, ONE_SIDE, OTHER_SIDE, OUTSIDE } from '../select/cutBetween.ts';
import { runsOfEdges } from '../select/orderedRun.ts';
import { edgeLength } from '../select/shortestPath.ts';
import { distanceFrom } from '../surface/distanceFrom.ts';
import { distanceToFaces } from '../surface/distanceToFaces.ts';
import type { Shell } from '../surface/shell.ts';
import { type Counterparts, meanEdge } from '../symmetry/counterparts.ts';
import { meetsImage } from '../symmetry/meetsImage.ts';
import { LEAST, type Limb, limbs, MOST } from './limbs.ts';
import { straightRun } from './straightRun.ts';

/** The tightest ring is looked for so far before the end of a limb and beyond it, as a part of the way round; and at least so many edges. */
const [BEFORE, BEYOND, EDGES] = [0.3, 0.2, 2];
/** At the rim of what is looked through an edge costs so much more than at the end of the limb, so that one that tapers is cut there. */
const RIM = 3;

export interface LimbTask {
  readonly mesh: Mesh;
  readonly connectivity: Connectivity;
  /** 1 for each edge that is cut. */
  readonly seams: Uint8Array;
  readonly shell: Shell;
  /** Where given, every ring brings its image. */
  readonly pairs?: Counterparts;
}

/**
 * Seams that cut the limbs of a shell off where they join the body: for each the tightest there is near where it ends, a minimum cut of
 * faces whose common edges cost their length, run straight. Of limbs within a limb, such as fingers, only the whole is cut off.
 *
 * @returns edges of each limb's seam, its image's among them
 * @throws StoppedError
 */
export function limbRings(task: LimbTask, context: Context): number[][] {
  const { mesh, connectivity, shell, pairs } = task;
  const whole = areaOf(mesh, shell.triangleFace);
  const all = limbs(shell, share(context, 0, 0.5));
  const cuts = all.flatMap((limb, i) => {
    context.report({ fraction: 0.5 + (0.5 * i) / all.length });
    const tight = tightestCut(task, limb, context.signal);
    const ring = runsOfEdges(connectivity, tight).flatMap((run) => straightRun(task, run));
    const behind = facesBehind(task, limb.tip, ring);
    const part = areaOf(mesh, behind) / whole;
    return part >= LEAST && part <= MOST ? [{ ring, behind, part }] : [];
  });
  const cutOff = new Uint8Array(mesh.faceStart.length - 1);
  const found: number[][] = [];
  // Of limbs within one another the largest.
  for (const { ring, behind } of cuts.sort((a, b) => b.part - a.part)) {
    if (behind.some((f) => cutOff[f])) continue;
    const images = pairs ? ring.map((e) => pairs.edges[e]) : [];
    // Half of an image would leave a slit, and one that touches the ring slivers.
    const isWhole = images.every((e) => e >= 0 && connectivity.isInterior[e]);
    const brings = pairs !== undefined && isWhole && !meetsImage(connectivity, pairs, ring);
    for (const f of behind) {
      cutOff[f] = 1;
      if (brings && pairs.faces[f] >= 0) cutOff[pairs.faces[f]] = 1;
    }
    found.push([...new Set(brings ? [...ring, ...images] : ring)]);
  }
  return found;
}

/** Faces on the tip's side of a seam. */
const facesBehind = (
  { mesh, connectivity, seams, shell }: LimbTask,
  tip: number,
  ring: readonly number[],
): number[] => {
  const closed = new Set(ring);
  return connectedFaces(
    mesh,
    connectivity,
    [faceOf(shell, tip)],
    (e) => connectivity.isInterior[e] === 1 && !seams[e] && !closed.has(e),
  );
};

/** Surface of some faces, each counted once; model units squared, twice. */
const areaOf = (mesh: Mesh, faces: Iterable<number>): number => {
  let area = 0;
  for (const f of new Set(faces)) area += Math.hypot(...faceNormal(mesh, f));
  return area;
};

/** The edges of the shortest cut between the tip of a limb and the rest, near where it ends. */
function tightestCut(
  { mesh, connectivity, seams, shell }: LimbTask,
  { tip, goal, distance, round }: Limb,
  signal: Context['signal'],
): number[] {
  const { isInterior, edgeCorners, edgeCornerStart, cornerFace } = connectivity;
  const far = distanceToFaces(
    shell,
    distanceFrom(shell.positions, shell.triangles, [tip], signal),
    mesh.faceStart.length - 1,
  );
  const least = EDGES * meanEdge(mesh, connectivity);
  const from = distance - Math.max(BEFORE * round, least);
  const to = distance + Math.max(BEYOND * round, least);
  const farAt = (e: number) => [0, 1].map((k) => far[cornerFace[edgeCorners[edgeCornerStart[e] + k]]]);
  const isOpen = (e: number) => isInterior[e] === 1 && !seams[e];
  const side = Uint8Array.from(far, (d) => (d === Infinity ? OUTSIDE : d < from ? ONE_SIDE : EITHER_SIDE));
  side[faceOf(shell, tip)] = ONE_SIDE;
  // Other limbs that reach as far are not where the body is.
  const isBeyond = (e: number) => isOpen(e) && farAt(e).every((d) => d > to && d < Infinity);
  for (const f of connectedFaces(mesh, connectivity, [faceOf(shell, goal)], isBeyond)) side[f] = OTHER_SIDE;
  const costOf = (e: number): number => {
    const [d, other] = farAt(e);
    const off = (d + other) / 2 - distance;
    const part = Math.min(1, off / ((off < 0 ? from : to) - distance));
    return edgeLength(mesh, connectivity, e) * (1 + RIM * part * part);
  };
  return cutBetween(connectivity, side, isOpen, costOf, signal);
}

/** A face at a vertex of a shell. */
const faceOf = ({ triangles, triangleFace }: Shell, vertex: number): number =>
  triangleFace[(triangles.indexOf(vertex) / 3) | 0];
