import { StoppedError } from '../errors.ts';
import { findEdge } from '../mesh/connectivity.ts';
import { faceNormals } from '../mesh/normals.ts';
import { type Context, share } from '../progress.ts';
import { edgeCosts } from '../seams/edgeCosts.ts';
import { edgeLength } from '../select/shortestPath.ts';
import { type CoarseSurface, coarseSurface, symmetricSurface } from '../surface/coarseSurface.ts';
import { extractShell, type Shell } from '../surface/shell.ts';
import { facesOfShell, shellsAtEdges, shellsFromSeams } from '../surface/shells.ts';
import { shellTopology } from '../surface/shellTopology.ts';
import { edgeVisibility } from '../surface/visibility.ts';
import { type Counterparts, counterparts } from '../symmetry/counterparts.ts';
import { isometryOf } from '../symmetry/findSymmetry.ts';
import { type CoarseSeamsOptions, coarseSeams } from './coarseSeams.ts';
import { cutThese } from './cutUp.ts';
import { mending } from './mend.ts';
import { ofOneSide } from './ofOneSide.ts';
import type { ProposalTask } from './proposalTask.ts';
import { reachCount } from './reachCount.ts';
import { MOST_SMALL, sewSmall } from './sewSmall.ts';
import { shellImage } from './shellImage.ts';
import { withoutSmallHoles } from './smallHoles.ts';
import { type Priced, takeOver } from './takeOver.ts';
import { tidy } from './tidy.ts';

export interface ProposalOptions extends CoarseSeamsOptions {
  /** From 0, short seams, to 1, hidden ones. */
  readonly hidden: number;
  /** Triangles on which seams are looked for; larger surfaces are made coarser. */
  readonly triangles: number;
  /** About how many shells are wished for, whatever they stretch; as many as it takes when absent. */
  readonly pieces?: number;
}

/**
 * Proposes seams after which every shell can lie flat with little stretch: few, short and where they hide. Each shell of the model as it is
 * cut now is taken by itself; one that lies flat well enough is left alone. Seams are found on a coarse surface by what laying flat there
 * shows, run onto the fine one, straightened and moved to where they hide. Small holes count as filled: no seam leads to one for its own sake.
 *
 * @returns edges to cut in addition to seams that stay; where it was stopped, as good as they were by then
 * @throws StoppedError when there were none yet
 */
export function proposeSeams(task: ProposalTask, options: ProposalOptions, context: Context): number[] {
  const filled = withoutSmallHoles(task);
  const edges = seamsFor(filled, options, context);
  if (filled === task) return edges;
  const { edgeVertices } = filled.connectivity;
  return edges.flatMap((e) => {
    const own = findEdge(task.connectivity, edgeVertices[2 * e], edgeVertices[2 * e + 1]);
    return own >= 0 && task.connectivity.isInterior[own] ? [own] : [];
  });
}

function seamsFor(task: ProposalTask, options: ProposalOptions, context: Context): number[] {
  const { mesh, connectivity, seams, symmetry, visibility } = task;
  const work: Work = {
    ...task,
    options,
    now: seams.slice(),
    pairs: symmetry ? counterparts(mesh, connectivity, isometryOf(symmetry)) : undefined,
    lengths: Float64Array.from(connectivity.isInterior.keys(), (e) =>
      connectivity.isInterior[e] ? edgeLength(mesh, connectivity, e) : Infinity,
    ),
    costs: edgeCosts(mesh, connectivity, faceNormals(mesh), {
      hidden: options.hidden,
      visibility: edgeVisibility(connectivity, visibility),
      seams,
    }).map((cost, e) => (connectivity.isInterior[e] && !seams[e] ? cost : Infinity)),
  };
  const old = shellsFromSeams(mesh, connectivity, seams);
  cutUp(work, old, task.shells, share(context, 0, FIRST));
  const wanted = new Uint8Array(old.faceShell.length);
  for (const s of task.shells) for (const f of facesOfShell(old, s)) wanted[f] = 1;
  mend(work, wanted, share(context, FIRST, MENDED));
  sewSmall(work, wanted, options, context);
  if (options.pieces)
    reachCount(work, facesCutUp(work, old, task.shells), options.pieces, share(context, MENDED, 1));
  return [...work.now.keys()].filter((e) => work.now[e] && !seams[e]);
}

/** Parts of the work that are done once seams are found on coarse surfaces, and once they are mended. */
const [FIRST, MENDED] = [0.75, 0.9];
/** Shells that are mended at most, so that nothing goes on for ever. */
const MOST_MENDED = 80;

/** Everything that is needed on the way; `now` is what changes. */
interface Work extends ProposalTask, Priced {
  readonly options: ProposalOptions;
  readonly now: Uint8Array;
  readonly pairs: Counterparts | undefined;
}

/** 1 for each face of a shell that was cut up; of all that are wanted where none was. Crumbs that lie about are no shells to be wished for. */
function facesCutUp({ connectivity, now, seams }: Work, old: Shells, shells: readonly number[]): Uint8Array {
  const cut = new Set(
    shellsAtEdges(
      connectivity,
      old,
      [...now.keys()].filter((e) => now[e] && !seams[e]),
    ),
  );
  const faces = new Uint8Array(old.faceShell.length);
  for (const s of cut.size > 0 ? cut : shells) for (const f of facesOfShell(old, s)) faces[f] = 1;
  return faces;
}

/** Finds seams for some shells, each by itself; of two that are images of each other, for one. */
function cutUp(work: Work, shells: Shells, wanted: readonly number[], context: Context): void {
  const done = new Set<number>();
  const shares = wanted.map((s) => facesOfShell(shells, s).length);
  const all = shares.reduce((sum, n) => sum + n, 0) || 1;
  let before = 0;
  wanted.forEach((s, i) => {
    const from = before;
    before += shares[i] / all;
    if (done.has(s)) return;
    if (i > 0 && context.signal.aborted) return;
    cutThese(work, seamsOfShell(work, shells, s, share(context, from, before)));
    const twin = work.pairs && shellOfImage(shells, work.pairs, s);
    if (twin !== undefined) done.add(twin);
  });
  tidy(work, shells, new Set(wanted));
}

/** Looks at every shell as it lies on the fine surface, and cuts what does not lie as well as is asked for. */
function mend(work: Work, wanted: Uint8Array, context: Context): void {
  const { mesh, connectivity, triangulation, triangleStart, options, pairs } = work;
  const well = new Set<string>();
  for (let round = 0; round < MOST_MENDED && !context.signal.aborted; round++) {
    context.report({ fraction: round / (round + 10) });
    const shells = shellsFromSeams(mesh, connectivity, work.now);
    const keyOf = (s: number) =>
      `${facesOfShell(shells, s)[0]} ${facesOfShell(shells, s).length} ${shells.wedgeStart[s + 1] - shells.wedgeStart[s]}`;
    const s = Array.from({ length: shells.shellCount }, (_, i) => i).find(
      (i) => wanted[facesOfShell(shells, i)[0]] && !well.has(keyOf(i)),
    );
    if (s === undefined) return;
    const shell = extractShell(mesh, triangulation, triangleStart, shells, s);
    const { kind } = shellTopology(shell);
    const surface = kind === 'nonManifold' ? undefined : coarseSurface(shell, MOST_JUDGED, context.signal);
    const found = surface && (kind === 'disk' ? mending(surface, options.most, context) : 'anew');
    const twin = pairs && shellOfImage(shells, pairs, s);
    for (const each of [s, twin]) if (each !== undefined) well.add(keyOf(each));
    if (!found || !surface) continue;
    if (found === 'anew')
      unlessStopped(() => cutUp(work, shells, [s], { signal: context.signal, report: () => undefined }));
    else {
      cutAlong(work, shell, surface, found.edges, twin === s);
      tidy(work, shells, new Set([s]));
    }
  }
}

/**
 * Cuts a shell along edges of its coarse surface.
 *
 * @param isOwnImage  whether it is its own mirror image, so that a cut on one side brings the other
 */
function cutAlong(
  work: Work,
  shell: Shell,
  surface: CoarseSurface,
  edges: readonly number[],
  isOwnImage: boolean,
): void {
  const { edgeVertices } = surface.connectivity;
  const sideAt = (v: number) => ahead(work, work.mesh.cornerVertex[shell.vertexCorner[surface.vertex[v]]]);
  const sideOf = (e: number) => sideAt(edgeVertices[2 * e]) + sideAt(edgeVertices[2 * e + 1]);
  const cut = new Uint8Array(surface.connectivity.isInterior.length);
  for (const e of isOwnImage ? ofOneSide(edges, sideOf) : edges) cut[e] = 1;
  cutThese(work, takeOver(work, shell, surface, cut));
}

function unlessStopped<T>(work: () => T): T | undefined {
  try {
    return work();
  } catch (error) {
    if (error instanceof StoppedError) return undefined;
    throw error;
  }
}

/** Larger shells are judged by a coarser one. */
const MOST_JUDGED = 4000;
type Shells = ReturnType<typeof shellsFromSeams>;

/** The one shell that all of its faces go to. */
function shellOfImage(shells: Shells, { faces }: Counterparts, shell: number): number | undefined {
  const found = new Set<number>();
  for (const f of facesOfShell(shells, shell)) found.add(faces[f] < 0 ? -1 : shells.faceShell[faces[f]]);
  const [twin] = found;
  return found.size === 1 && twin >= 0 ? twin : undefined;
}

/** How far a vertex of the model lies before its mirror plane; 0 without one. */
const ahead = ({ mesh, symmetry }: Work, v: number): number =>
  symmetry
    ? symmetry.direction.reduce((sum, d, k) => sum + d * (mesh.positions[3 * v + k] - symmetry.through[k]), 0)
    : 0;

function seamsOfShell(work: Work, shells: Shells, s: number, context: Context): number[] {
  const { mesh, connectivity, triangulation, triangleStart, visibility, pairs, options } = work;
  const shell = extractShell(mesh, triangulation, triangleStart, shells, s);
  if (shellTopology(shell).kind === 'nonManifold') return [];
  const image = pairs && shellImage(mesh, connectivity, shells, s, pairs, (v) => ahead(work, v));
  const surface = image
    ? symmetricSurface(
        shell,
        image.vertices,
        (t) => image.ours[shell.triangleFace[t]] === 1,
        options.triangles,
        context.signal,
      )
    : coarseSurface(shell, options.triangles, context.signal);
  const costs = coarseCosts(
    surface,
    (v) => visibility[mesh.cornerVertex[shell.vertexCorner[v]]],
    options.hidden,
  );
  // Of a part of the model, small is what is small in the whole.
  const share = facesOfShell(shells, s).length / (mesh.faceStart.length - 1);
  const smallest = Math.min(MOST_SMALL, options.smallest / share);
  return takeOver(work, shell, surface, coarseSeams(surface, costs, { ...options, smallest }, context));
}

function coarseCosts(
  { mesh, connectivity, vertex }: CoarseSurface,
  visibilityOf: (shellVertex: number) => number,
  hidden: number,
): Float64Array {
  const visibility = edgeVisibility(connectivity, Float32Array.from(vertex, visibilityOf));
  return edgeCosts(mesh, connectivity, faceNormals(mesh), { hidden, visibility });
}
