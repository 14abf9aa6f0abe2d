import { StoppedError } from '../errors.ts';
import { type Connectivity, findEdge } from '../mesh/connectivity.ts';
import type { Mesh } from '../mesh/mesh.ts';
import { faceNormal, faceNormals } from '../mesh/normals.ts';
import type { Triangulation } from '../mesh/triangulate.ts';
import type { Context } from '../progress.ts';
import { edgeCosts } from '../seams/edgeCosts.ts';
import { openShell } from '../seams/openShell.ts';
import { edgeLength } from '../select/shortestPath.ts';
import { type CoarseSurface, coarseSurface, symmetricSurface } from '../surface/coarseSurface.ts';
import { extractShell, type Shell, shellFromTriangles } from '../surface/shell.ts';
import { facesOfShell, shellsAtEdges, shellsFromSeams } from '../surface/shells.ts';
import { verdictOf } from '../surface/verdict.ts';
import { edgeExposure } from '../surface/viewExposure.ts';
import { type Counterparts, counterparts } from '../symmetry/counterparts.ts';
import { isometryOf, type Symmetry } from '../symmetry/findSymmetry.ts';
import { type CoarseSeamsOptions, coarseSeams } from './coarseSeams.ts';
import { isStretched } from './layFlat.ts';
import { mending } from './mend.ts';
import { ofOneSide } from './ofOneSide.ts';
import { type CoarseRun, ontoSurface } from './ontoSurface.ts';
import { seamRuns } from './seamRuns.ts';
import { shellImage } from './shellImage.ts';
import { withoutSmallHoles } from './smallHoles.ts';

export interface ProposalOptions extends CoarseSeamsOptions {
  /** From 0, short seams, to 1, hidden ones. */
  readonly hidden: number;
  /** Triangles on which seams are looked for; larger surfaces are made coarser. */
  readonly triangles: number;
}

export interface ProposalTask {
  readonly mesh: Mesh;
  readonly links: Connectivity;
  readonly triangulation: Triangulation;
  readonly triangleStart: Uint32Array;
  /** Seams that stay, 1 for each cut edge. */
  readonly seams: Uint8Array;
  /** Shells that are to be cut, by number; the others are left as they are. */
  readonly shells: readonly number[];
  /** How much is seen of every vertex. */
  readonly exposure: Float32Array;
  /** A mirror plane; seams on one side have their image on the other. */
  readonly symmetry?: Symmetry;
}

/** A piece smaller than this part of the surface of its shell is a crumb, and sewn to its neighbour. */
const CRUMB = 5e-4;

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
  const { edgeVertices } = filled.links;
  return edges.flatMap((e) => {
    const own = findEdge(task.links, edgeVertices[2 * e], edgeVertices[2 * e + 1]);
    return own >= 0 && task.links.joined[own] ? [own] : [];
  });
}

function seamsFor(task: ProposalTask, options: ProposalOptions, context: Context): number[] {
  const { mesh, links, seams, symmetry, exposure } = task;
  const work: Work = {
    ...task,
    options,
    now: seams.slice(),
    pairs: symmetry ? counterparts(mesh, links, isometryOf(symmetry)) : undefined,
    lengths: Float64Array.from(links.joined.keys(), (e) =>
      links.joined[e] ? edgeLength(mesh, links, e) : Infinity,
    ),
    costs: edgeCosts(mesh, links, faceNormals(mesh), {
      hidden: options.hidden,
      exposure: edgeExposure(links, exposure),
      seams,
    }).map((cost, e) => (links.joined[e] && !seams[e] ? cost : Infinity)),
  };
  const old = shellsFromSeams(mesh, links, seams);
  cutUp(work, old, task.shells, within(context, 0, FIRST));
  const wanted = new Uint8Array(old.faceShell.length);
  for (const s of task.shells) for (const f of facesOfShell(old, s)) wanted[f] = 1;
  mend(work, wanted, within(context, FIRST, 1));
  sewSmall(work, wanted, context);
  return [...work.now.keys()].filter((e) => work.now[e] && !seams[e]);
}

/** A shell that is so much of what is cut up is never small. */
const MOST_SMALL = 0.15;

/** Part of the work that is done once seams are found on coarse surfaces. */
const FIRST = 0.75;
/** Shells that are mended at most, so that nothing goes on for ever. */
const MOST_MENDED = 80;

/** Everything that is needed on the way; `now` is what changes. */
interface Work extends ProposalTask {
  readonly options: ProposalOptions;
  readonly now: Uint8Array;
  readonly pairs: Counterparts | undefined;
  /** Of every edge, Infinity where no seam may run. */
  readonly costs: Float64Array;
  readonly lengths: Float64Array;
}

const within = ({ signal, report }: Context, from: number, to: number): Context => ({
  signal,
  report: ({ fraction = 0 }) => report({ fraction: from + fraction * (to - from) }),
});

/** Cuts edges, and with them their mirror images. */
function cutThese({ links, now, pairs }: Work, edges: Iterable<number>): void {
  for (const e of edges) {
    now[e] = 1;
    const image = pairs?.edges[e] ?? -1;
    if (image >= 0 && links.joined[image]) now[image] = 1;
  }
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
    cutThese(work, seamsOfShell(work, shells, s, within(context, from, before)));
    const twin = work.pairs && shellOfImage(shells, work.pairs, s);
    if (twin !== undefined) done.add(twin);
  });
  tidy(work, shells, new Set(wanted));
}

/** Looks at every shell as it lies on the fine surface, and cuts what does not lie as well as is asked for. */
function mend(work: Work, wanted: Uint8Array, context: Context): void {
  const { mesh, links, triangulation, triangleStart, options, pairs } = work;
  const well = new Set<string>();
  for (let round = 0; round < MOST_MENDED && !context.signal.aborted; round++) {
    context.report({ fraction: round / (round + 10) });
    const shells = shellsFromSeams(mesh, links, work.now);
    const keyOf = (s: number) =>
      `${facesOfShell(shells, s)[0]} ${facesOfShell(shells, s).length} ${shells.wedgeStart[s + 1] - shells.wedgeStart[s]}`;
    const s = Array.from({ length: shells.shellCount }, (_, i) => i).find(
      (i) => wanted[facesOfShell(shells, i)[0]] && !well.has(keyOf(i)),
    );
    if (s === undefined) return;
    const shell = extractShell(mesh, triangulation, triangleStart, shells, s);
    const { kind } = verdictOf(shell);
    const surface = kind === 'tangled' ? undefined : coarseSurface(shell, MOST_JUDGED, context.signal);
    const found = surface && (kind === 'flat' ? mending(surface, options.most, context) : 'anew');
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
  const { edgeVertices } = surface.links;
  const sideAt = (v: number) => ahead(work, work.mesh.cornerVertex[shell.vertexCorner[surface.vertex[v]]]);
  const sideOf = (e: number) => sideAt(edgeVertices[2 * e]) + sideAt(edgeVertices[2 * e + 1]);
  const cut = new Uint8Array(surface.links.joined.length);
  for (const e of isOwnImage ? ofOneSide(edges, sideOf) : edges) cut[e] = 1;
  cutThese(work, ontoFine(work, shell, surface, cut));
}

/** Joins small shells to the neighbour with which they share most, along all they share or one run of it, where both together lie flat; what is too small may cost twice the stretch. */
function sewSmall(work: Work, wanted: Uint8Array, { signal }: Context): void {
  const { mesh, links, triangulation, triangleStart, seams, now, pairs, options } = work;
  const whole = areaOf(
    mesh,
    [...wanted.keys()].filter((f) => wanted[f]),
  );
  const tried = new Set<string>();
  for (let k = 0; k < MOST_TRIED && !signal.aborted; k++) {
    const shells = shellsFromSeams(mesh, links, now);
    const small = Array.from({ length: shells.shellCount }, (_, s) => facesOfShell(shells, s))
      .filter((faces) => wanted[faces[0]] && !tried.has(`${faces[0]} ${faces.length}`))
      .map((faces) => ({ faces, area: areaOf(mesh, faces) }))
      .filter(({ area }) => area < MOST_SMALL * whole)
      .sort((a, b) => a.area - b.area || a.faces[0] - b.faces[0])[0];
    if (!small) return;
    const { faces, area } = small;
    tried.add(`${faces[0]} ${faces.length}`);
    const most = area < options.smallest * whole ? 1 + 2 * (options.most - 1) : options.most;
    const s = shells.faceShell[faces[0]];
    const fits = (edges: readonly number[]): Uint8Array | undefined => {
      const next = now.slice();
      for (const e of edges)
        for (const each of [e, pairs?.edges[e] ?? -1]) if (each >= 0 && !seams[each]) next[each] = 0;
      const joined = shellsFromSeams(mesh, links, next);
      if (joined.shellCount === shells.shellCount) return undefined;
      const shell = extractShell(mesh, triangulation, triangleStart, joined, joined.faceShell[faces[0]]);
      if (verdictOf(shell).kind !== 'flat') return undefined;
      const { mesh: coarse } = coarseSurface(shell, MOST_JOINED, signal);
      const stretches = isStretched(
        shellFromTriangles(coarse.positions, coarse.cornerVertex),
        { most, relaxSteps: JOINED_STEPS, clear: true },
        signal,
      );
      return stretches === false ? next : undefined;
    };
    const shared = mostShared(mesh, links, shells, s, (e) => !seams[e]);
    const next = fits(shared) ?? firstOf(runsOf(links, now, shared), fits);
    if (next) now.set(next);
  }
}

/** Edges by the runs between forks of all seams that they make up, those of most edges first. */
function runsOf(links: Connectivity, now: Uint8Array, edges: readonly number[]): number[][] {
  const own = new Set(edges);
  const { vertexEdges, vertexEdgeStart, joined } = links;
  const isFork = (v: number) => {
    let degree = 0;
    for (let i = vertexEdgeStart[v]; i < vertexEdgeStart[v + 1]; i++)
      if (now[vertexEdges[i]] || !joined[vertexEdges[i]]) degree++;
    return degree !== 2;
  };
  return seamRuns(links, (e) => own.has(e), isFork)
    .map((run) => [...run.edges])
    .sort((a, b) => b.length - a.length);
}

function firstOf<T, R>(items: readonly T[], find: (item: T) => R | undefined): R | undefined {
  for (const item of items) {
    const found = find(item);
    if (found !== undefined) return found;
  }
  return undefined;
}

/** Steps of relaxing for it. */
const JOINED_STEPS = 12;

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
/** The same of what is joined to a small shell, and how many of these are tried. */
const [MOST_JOINED, MOST_TRIED] = [3000, 24];

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
  const { mesh, links, triangulation, triangleStart, exposure, pairs, options } = work;
  const shell = extractShell(mesh, triangulation, triangleStart, shells, s);
  if (verdictOf(shell).kind === 'tangled') return [];
  const image = pairs && shellImage(mesh, links, shells, s, pairs, (v) => ahead(work, v));
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
    (v) => exposure[mesh.cornerVertex[shell.vertexCorner[v]]],
    options.hidden,
  );
  // Of a part of the model, small is what is small in the whole.
  const share = facesOfShell(shells, s).length / (mesh.faceStart.length - 1);
  const smallest = Math.min(MOST_SMALL, options.smallest / share);
  return ontoFine(work, shell, surface, coarseSeams(surface, costs, { ...options, smallest }, context));
}

/** Seams of a coarse surface as edges of the model; of two that are images of each other, one. */
function ontoFine(
  { mesh, links, now, pairs, costs, lengths }: Work,
  shell: Shell,
  surface: CoarseSurface,
  cut: Uint8Array,
): number[] {
  const isBorder = new Uint8Array(links.vertexEdgeStart.length - 1);
  for (let e = 0; e < now.length; e++)
    if (now[e] || !links.joined[e]) for (let k = 0; k < 2; k++) isBorder[links.edgeVertices[2 * e + k]] = 1;
  const modelVertex = (v: number) => mesh.cornerVertex[shell.vertexCorner[v]];
  const runs = coarseRuns(surface, cut, modelVertex, (v) => pairs?.vertices[v] === v);
  const reach = Math.max(
    2,
    Math.ceil(1.5 * Math.sqrt(shell.triangles.length / surface.mesh.cornerVertex.length)),
  );
  return ontoSurface(mesh, links, runs, costs, lengths, (v) => isBorder[v] === 1, reach).flat();
}

function coarseCosts(
  { mesh, links, vertex }: CoarseSurface,
  exposureOf: (shellVertex: number) => number,
  hidden: number,
): Float64Array {
  const exposure = edgeExposure(links, Float32Array.from(vertex, exposureOf));
  return edgeCosts(mesh, links, faceNormals(mesh), { hidden, exposure });
}

/** Seams of a coarse surface as runs over the vertices of the model; of two that are images of each other, one. */
function coarseRuns(
  { links, vertex, image }: CoarseSurface,
  cut: Uint8Array,
  modelVertex: (v: number) => number,
  isOwnImage: (modelVertex: number) => boolean,
): CoarseRun[] {
  const onBorder = new Uint8Array(vertex.length);
  links.joined.forEach((joined, e) => {
    if (!joined) for (let k = 0; k < 2; k++) onBorder[links.edgeVertices[2 * e + k]] = 1;
  });
  const isMiddle = (v: number) => image?.vertices[v] === v;
  const seen = new Set<number>();
  const runs: CoarseRun[] = [];
  for (const { edges, ends } of seamRuns(
    links,
    (e) => cut[e] === 1,
    (v) => onBorder[v] === 1 || isMiddle(v),
  )) {
    if (seen.has(edges[0])) continue;
    const vertices = [ends[0]];
    for (const e of edges) {
      if (image) seen.add(image.edges[e]);
      const at = vertices[vertices.length - 1];
      vertices.push(links.edgeVertices[2 * e] + links.edgeVertices[2 * e + 1] - at);
    }
    const alongMiddle = image !== undefined && edges.every((e) => image.edges[e] === e);
    runs.push({
      vertices: vertices.map((v) => modelVertex(vertex[v])),
      within: image && ((v) => isOwnImage(v) === alongMiddle),
    });
  }
  return runs;
}

/** Sews crumbs to what they were broken off, and opens what cannot lie flat yet. */
function tidy(
  { mesh, links, triangulation, triangleStart, now, seams, pairs, costs }: Work,
  old: Shells,
  wanted: ReadonlySet<number>,
): void {
  const oldOf = (face: number) => old.faceShell[face];
  for (let round = 0; round < 3; round++) {
    const shells = shellsFromSeams(mesh, links, now);
    let sewn = 0;
    for (let s = 0; s < shells.shellCount; s++) {
      const faces = facesOfShell(shells, s);
      if (!wanted.has(oldOf(faces[0]))) continue;
      const whole = facesOfShell(old, oldOf(faces[0]));
      if (faces.length === whole.length || areaOf(mesh, faces) > CRUMB * areaOf(mesh, whole)) continue;
      for (const e of mostShared(mesh, links, shells, s, (e) => !seams[e])) {
        now[e] = 0;
        sewn++;
        const image = pairs?.edges[e] ?? -1;
        if (image >= 0 && !seams[image]) now[image] = 0;
      }
    }
    if (sewn === 0) break;
  }
  const shells = shellsFromSeams(mesh, links, now);
  for (let s = 0; s < shells.shellCount; s++) {
    if (!wanted.has(oldOf(facesOfShell(shells, s)[0]))) continue;
    const shell = extractShell(mesh, triangulation, triangleStart, shells, s);
    const edgeOf = (a: number, b: number) =>
      findEdge(links, mesh.cornerVertex[shell.vertexCorner[a]], mesh.cornerVertex[shell.vertexCorner[b]]);
    for (const [a, b] of openShell(shell, (a, b) => costs[edgeOf(a, b)], { disc: true }).edges) {
      const e = edgeOf(a, b);
      now[e] = 1;
      const image = pairs?.edges[e] ?? -1;
      if (image >= 0 && links.joined[image]) now[image] = 1;
    }
  }
}

const areaOf = (mesh: Mesh, faces: Iterable<number>): number => {
  let area = 0;
  for (const f of faces) area += Math.hypot(...faceNormal(mesh, f)) / 2;
  return area;
};

/** Edges that a shell shares with the neighbour with which it shares most. */
function mostShared(
  mesh: Mesh,
  links: Connectivity,
  shells: Shells,
  shell: number,
  isFree: (edge: number) => boolean,
): number[] {
  const shared = new Map<number, number[]>();
  for (const f of facesOfShell(shells, shell)) {
    for (let c = mesh.faceStart[f]; c < mesh.faceStart[f + 1]; c++) {
      const e = links.cornerEdge[c];
      if (!links.joined[e] || !isFree(e)) continue;
      for (const other of shellsAtEdges(links, shells, [e])) {
        if (other === shell) continue;
        const list = shared.get(other);
        if (list) list.push(e);
        else shared.set(other, [e]);
      }
    }
  }
  const [most = []] = [...shared.values()].sort((a, b) => b.length - a.length);
  return most;
}
