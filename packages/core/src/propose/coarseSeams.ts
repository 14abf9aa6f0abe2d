import { findEdge } from '../mesh/connectivity.ts';
import { faceCount, type Mesh } from '../mesh/mesh.ts';
import { triangulate } from '../mesh/triangulate.ts';
import type { Context } from '../progress.ts';
import { openShell } from '../seams/openShell.ts';
import { edgeLength } from '../select/shortestPath.ts';
import { extractShell, faceTriangleStart, shellFromTriangles } from '../surface/shell.ts';
import { facesOfShell, shellsFromSeams } from '../surface/shells.ts';
import { verdictOf } from '../surface/verdict.ts';
import type { CoarseSurface } from './coarseSurface.ts';
import { layFlat } from './layFlat.ts';
import { facesOfCluster, type Joins, normalClusters } from './normalClusters.ts';
import { type SeamRun, seamRuns } from './seamRuns.ts';
import { sewWhileFlat } from './sewWhileFlat.ts';

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
/** From here on a tighter bound is tried as well. */
const LAX = 1.1;

/**
 * Seams of a surface, found from those of its largest normal clusters that lie flat: whole runs between two shells are sewn while every shell
 * lies flat, then runs bit by bit, which leaves darts; at last shells that are too small are joined to others.
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
  const { mesh, links, image } = surface;
  const length = Float64Array.from(links.joined.keys(), (e) => edgeLength(mesh, links, e));
  const mean = length.reduce((sum, x) => sum + x, 0) / (length.length || 1);
  const onBorder = new Uint8Array(surface.vertex.length);
  links.joined.forEach((joined, e) => {
    if (!joined) for (let k = 0; k < 2; k++) onBorder[links.edgeVertices[2 * e + k]] = 1;
  });
  const setsOf = (longest: number) => (seams: Uint8Array) =>
    mirrored(
      surface,
      seamRuns(
        links,
        (e) => seams[e] === 1,
        (v) => onBorder[v] === 1 || (longest < Infinity && image?.vertices[v] === v),
        (e) => length[e],
        longest,
      ),
    );
  const part = (from: number, to: number): Context => ({
    signal: context.signal,
    report: ({ fraction = 0 }) => context.report({ fraction: from + fraction * (to - from) }),
  });
  const options = { costs, relaxSteps };
  const step = faceCount(mesh) < SMALL ? 1 : STEP;
  const sewn = (bound: number, own: Context): Uint8Array => {
    const share = (from: number, to: number): Context => ({
      signal: own.signal,
      report: ({ fraction = 0 }) => own.report({ fraction: from + fraction * (to - from) }),
    });
    const whole = { ...options, most: bound, setsOf: setsOf(Infinity) };
    const runs = sewWhileFlat(mesh, links, clusterSeams(surface, costs, bound, own), whole, share(0, 0.8));
    return sewWhileFlat(
      mesh,
      links,
      runs,
      { ...options, most: bound, setsOf: setsOf(step * mean) },
      share(0.8, 1),
    );
  };
  // What is allowed with less stretch is allowed with more: of several bounds the one that leaves the least seam is taken.
  const bounds = most > LAX ? [most, 1 + (most - 1) / 3] : [most];
  const tried = bounds.map((bound, i) =>
    sewn(bound, part((0.95 * i) / bounds.length, (0.95 * (i + 1)) / bounds.length)),
  );
  const costOf = (cut: Uint8Array) => cut.reduce((sum, isCut, e) => sum + (isCut ? costs[e] : 0), 0);
  const seams = tried.reduce((best, each) => (costOf(each) < costOf(best) ? each : best));
  const few = smallest * faceCount(mesh);
  const besideSmall = (now: Uint8Array) => {
    const shells = shellsFromSeams(mesh, links, now);
    const isSmall = (f: number) => facesOfShell(shells, shells.faceShell[f]).length < few;
    const beside = ({ edges: [e] }: SeamRun) =>
      [0, 1].map((k) => links.cornerFace[links.edgeCorners[links.edgeCornerStart[e] + k]]);
    return setsOf(Infinity)(now).filter((runs) => runs.some((run) => beside(run).some(isSmall)));
  };
  const lax = { ...options, most: 1 + 2 * (most - 1), setsOf: besideSmall };
  return sewWhileFlat(mesh, links, seams, lax, part(0.95, 1));
}

/** Every edge between two clusters that lie flat, and what opens one that is no disc. */
function clusterSeams(
  { mesh, links, image }: CoarseSurface,
  costs: Float64Array,
  most: number,
  context: Context,
): Uint8Array {
  const side = (e: number, k: number) => links.cornerFace[links.edgeCorners[links.edgeCornerStart[e] + k]];
  const half = image?.half ?? faceCount(mesh);
  // Of a surface that is its own image, one half is clustered, and the other has the same.
  const isOpen = (e: number) => side(e, 0) < half && side(e, 1) < half;
  const joins = normalClusters(mesh, links, isOpen);
  const label = flatClusters(mesh, joins, half, most, context);
  const seams = new Uint8Array(links.joined.length);
  for (let e = 0; e < seams.length; e++) {
    if (!links.joined[e]) continue;
    const [a, b] = [side(e, 0), side(e, 1)];
    if (a < half !== b < half) seams[e] = 1;
    else if (a < half && label[a] !== label[b]) {
      seams[e] = 1;
      if (image && image.edges[e] >= 0) seams[image.edges[e]] = 1;
    }
  }
  const triangulation = triangulate(mesh);
  const triangleStart = faceTriangleStart(mesh, triangulation);
  const shells = shellsFromSeams(mesh, links, seams);
  for (let s = 0; s < shells.shellCount; s++) {
    if (facesOfShell(shells, s)[0] >= half) continue;
    const shell = extractShell(mesh, triangulation, triangleStart, shells, s);
    const edgeOf = (a: number, b: number) =>
      findEdge(links, mesh.cornerVertex[shell.vertexCorner[a]], mesh.cornerVertex[shell.vertexCorner[b]]);
    for (const [a, b] of openShell(shell, (a, b) => costs[edgeOf(a, b)], { disc: true }).edges) {
      const e = edgeOf(a, b);
      seams[e] = 1;
      if (image && image.edges[e] >= 0) seams[image.edges[e]] = 1;
    }
  }
  return seams;
}

/** The largest clusters that lie flat: from the whole down, what does not is taken apart as it was joined. */
function flatClusters(mesh: Mesh, joins: Joins, half: number, most: number, context: Context): Uint32Array {
  const label = new Uint32Array(joins.faces);
  const isPart = new Uint8Array(joins.faces + joins.parts.length / 2);
  for (const c of joins.parts) isPart[c] = 1;
  let number = 0;
  const left = [...isPart.keys()].filter((c) => !isPart[c]);
  for (let c = left.pop(); c !== undefined; c = left.pop()) {
    const faces = facesOfCluster(joins, c);
    if (faces[0] < half && faces.length > 1 && !liesFlat(mesh, faces, most, context)) {
      left.push(joins.parts[2 * (c - joins.faces)], joins.parts[2 * (c - joins.faces) + 1]);
      continue;
    }
    for (const f of faces) label[f] = number;
    number++;
  }
  return label;
}

function liesFlat(mesh: Mesh, faces: readonly number[], most: number, context: Context): boolean {
  const number = new Map<number, number>();
  const triangles = faces.flatMap((f) =>
    [0, 1, 2].map((k) => {
      const v = mesh.cornerVertex[3 * f + k];
      if (!number.has(v)) number.set(v, number.size);
      return number.get(v) as number;
    }),
  );
  const positions = [...number.keys()].flatMap((v) => [...mesh.positions.subarray(3 * v, 3 * v + 3)]);
  const shell = shellFromTriangles(positions, triangles);
  return (
    verdictOf(shell).kind === 'flat' && layFlat(shell, { most, relaxSteps: 3 }, context.signal) !== undefined
  );
}

/** Runs with their mirror images, each pair once. */
function mirrored({ image, links }: CoarseSurface, runs: readonly SeamRun[]): (readonly SeamRun[])[] {
  if (!image) return runs.map((run) => [run]);
  const seen = new Set<number>();
  const sets: (readonly SeamRun[])[] = [];
  for (const run of runs) {
    if (seen.has(run.edges[0])) continue;
    for (const e of run.edges) seen.add(e);
    const edges = run.edges.map((e) => image.edges[e]);
    if (edges.some((e) => e < 0 || !links.joined[e])) continue;
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
