import { HemError } from '../errors.ts';
import type { Connectivity } from '../mesh/connectivity.ts';
import type { Mesh } from '../mesh/mesh.ts';
import { type Run, runsOfEdges } from '../select/orderedRun.ts';
import { edgeLength } from '../select/shortestPath.ts';
import { distanceFrom } from '../surface/distanceFrom.ts';
import { rowsFrom } from '../surface/rowsFrom.ts';
import type { Shell } from '../surface/shell.ts';
import { facesOfShell, type ShellMap } from '../surface/shells.ts';
import { straightRun } from './straightRun.ts';

/** A model as it is cut. */
export interface CutModel {
  readonly mesh: Mesh;
  readonly connectivity: Connectivity;
  readonly seams: Uint8Array;
  readonly shells: ShellMap;
  shell(number: number): Shell;
}

/** How far a seam moves: to a vertex, or by rows of edges, to the left of it and, below zero, to its right. */
export type Shift = { readonly to: number } | { readonly rows: number };

export interface ShiftedSeam {
  /** Seams that are none any more, and edges that become seams. */
  readonly sewn: readonly number[];
  readonly cut: readonly number[];
  /** Faces that the seam passed over: they go from the shell on one side to that on the other. None where the seam ends within a shell. */
  readonly strip: readonly number[];
}

/** A level may be missed by this part of it. */
const SLACK = 1e-6;
/** A free end follows until it is so near the level. */
const REACHED = 0.85;

/**
 * Moves a seam over, with what it is cut from kept in as many shells: the new one runs where all is equally far from the old, counted in
 * rows of edges where quads lie along it, along the surface elsewhere (`distanceFrom`). Ends on other seams and borders move along these; an end
 * within a shell moves with its seam.
 *
 * @param chosen  edges of one run of seam
 * @throws HemError when they are no such run, or there is no room
 */
export function shiftSeam(model: CutModel, chosen: readonly number[], shift: Shift): ShiftedSeam {
  const run = theRun(model, chosen);
  const sides = [0, 1].map((k) => sideOf(model, run, k as 0 | 1));
  const reached = sides.map((side) => side && levelOf(model, run, side, shift));
  const wanted = 'rows' in shift ? (shift.rows > 0 ? 0 : 1) : nearer(reached);
  const side = sides[wanted];
  const at = reached[wanted];
  if (!side)
    throw new HemError(
      'several-shells',
      'More than one shell lies along that side of the seam: choose the run along one of them.',
    );
  if (!at) throw new HemError('no-room', 'The seam cannot move there: it is not beside it.');
  return moved(model, run, side, at);
}

/** The chosen edges in order. */
function theRun({ connectivity, seams }: CutModel, chosen: readonly number[]): Run {
  if (chosen.some((e) => !seams[e] || !connectivity.isInterior[e]))
    throw new HemError('no-seam', 'Only seams can be shifted: choose the edges of one that is cut.');
  const runs = runsOfEdges(connectivity, chosen);
  if (runs.length !== 1)
    throw new HemError(
      'several-runs',
      'A seam is shifted one run at a time, and these edges are several: choose one without forks.',
    );
  return runs[0];
}

/** One side of a run: the shell there, and the corners from which its edges start. */
interface Side {
  readonly shell: number;
  readonly corners: readonly number[];
  /** Shell vertices along the run, and those of them at ends that lie within the shell. */
  readonly sources: ReadonlySet<number>;
  readonly tips: ReadonlySet<number>;
}

/** Undefined where several shells lie there. */
function sideOf(
  { mesh, connectivity, seams, shells }: CutModel,
  { edges, vertices, closed }: Run,
  side: 0 | 1,
): Side | undefined {
  const { edgeCorners, edgeCornerStart, cornerFace, nextCorner } = connectivity;
  const { cornerWedge, faceShell, wedgeStart } = shells;
  const corners = edges.map((e, i) => {
    const [first, second] = [edgeCorners[edgeCornerStart[e]], edgeCorners[edgeCornerStart[e] + 1]];
    // The face to the left goes along the run, that to the right against it.
    const isForward = mesh.cornerVertex[first] === vertices[i];
    return isForward === (side === 0) ? first : second;
  });
  const shell = faceShell[cornerFace[corners[0]]];
  if (corners.some((c) => faceShell[cornerFace[c]] !== shell)) return undefined;
  const sources = new Set<number>();
  for (const c of corners)
    for (const k of [c, nextCorner[c]]) sources.add(cornerWedge[k] - wedgeStart[shell]);
  const tips = new Set<number>();
  for (const v of closed ? [] : [vertices[0], vertices[vertices.length - 1]]) {
    const around = connectivity.vertexEdges.subarray(
      connectivity.vertexEdgeStart[v],
      connectivity.vertexEdgeStart[v + 1],
    );
    const isWithin =
      around.every((e) => connectivity.isInterior[e]) && around.filter((e) => seams[e]).length === 1;
    if (!isWithin) continue;
    for (const c of corners)
      for (const k of [c, nextCorner[c]])
        if (mesh.cornerVertex[k] === v) tips.add(cornerWedge[k] - wedgeStart[shell]);
  }
  return { shell, corners, sources, tips };
}

/** How far everything in a shell is from a run, and how far it is to move. */
interface Level {
  /** Of every shell vertex: rows, or model units. */
  readonly distance: Float64Array;
  readonly level: number;
  readonly inRows: boolean;
  /** 1 for shell vertices that are nearest to an end that lies within the shell. */
  readonly beyond: Uint8Array;
}

function levelOf(model: CutModel, run: Run, side: Side, shift: Shift): Level | undefined {
  const { mesh, connectivity } = model;
  const shell = model.shell(side.shell);
  const inRows = side.corners.every((c) => {
    const f = connectivity.cornerFace[c];
    return mesh.faceStart[f + 1] - mesh.faceStart[f] === 4;
  });
  const from = (sources: Iterable<number>) =>
    inRows ? rowsFrom(shell, sources) : distanceFrom(shell.positions, shell.triangles, sources);
  const distance = from(side.sources);
  const beyond = new Uint8Array(distance.length);
  if (side.tips.size > 0) {
    const toTips = from(side.tips);
    const toOthers = from([...side.sources].filter((v) => !side.tips.has(v)));
    for (let v = 0; v < beyond.length; v++) beyond[v] = toTips[v] < toOthers[v] * (1 - SLACK) ? 1 : 0;
  }
  const mean = run.edges.reduce((sum, e) => sum + edgeLength(mesh, connectivity, e), 0) / run.edges.length;
  let level = Infinity;
  if ('rows' in shift) level = Math.abs(shift.rows) * (inRows ? 1 : mean);
  else
    shell.vertexCorner.forEach((c, v) => {
      if (mesh.cornerVertex[c] === shift.to) level = Math.min(level, distance[v]);
    });
  return level > 0 && level < Infinity ? { distance, level, inRows, beyond } : undefined;
}

/** The side on which a place is nearer, each by its own measure where only one reaches it. */
function nearer([left, right]: readonly (Level | undefined)[]): 0 | 1 {
  if (!left || !right) return left ? 0 : 1;
  return left.level <= right.level ? 0 : 1;
}

function moved(model: CutModel, run: Run, side: Side, at: Level): ShiftedSeam {
  const { mesh, connectivity, seams, shells } = model;
  const { cornerWedge, wedgeStart } = shells;
  const first = wedgeStart[side.shell];
  const cornersOf = (f: number) =>
    Array.from({ length: mesh.faceStart[f + 1] - mesh.faceStart[f] }, (_, k) => mesh.faceStart[f] + k);
  const own = facesOfShell(shells, side.shell);
  const within = new Set<number>();
  for (const f of own) {
    const around = cornersOf(f).map((c) => cornerWedge[c] - first);
    if (around.every((v) => at.distance[v] <= at.level * (1 + SLACK)) && !around.every((v) => at.beyond[v]))
      within.add(f);
  }
  const strip = withIslands(model, own, within);
  if (strip.size === own.length)
    throw new HemError('no-room', 'There is no room: nothing would be left of the shell on that side.');
  const isInside = (e: number) => connectivity.isInterior[e] === 1 && !seams[e];
  const sideFaces = (e: number) =>
    [0, 1].map((k) => connectivity.cornerFace[connectivity.edgeCorners[connectivity.edgeCornerStart[e] + k]]);
  const edge = new Set<number>();
  for (const f of strip)
    for (const c of cornersOf(f)) {
      const e = connectivity.cornerEdge[c];
      if (isInside(e) && sideFaces(e).some((g) => !strip.has(g))) edge.add(e);
    }
  const distanceOf = (v: number, e: number): number => {
    for (const c of [
      connectivity.edgeCorners[connectivity.edgeCornerStart[e]],
      connectivity.edgeCorners[connectivity.edgeCornerStart[e] + 1],
    ])
      for (const k of [c, connectivity.nextCorner[c]])
        if (mesh.cornerVertex[k] === v) return at.distance[cornerWedge[k] - first];
    return 0;
  };
  const old = new Set(run.vertices);
  const isThere = (way: Run, i: number) =>
    distanceOf(way.vertices[i], way.edges[Math.min(i, way.edges.length - 1)]) >= REACHED * at.level;
  const cut = runsOfEdges(connectivity, edge).flatMap((way) => {
    const level = side.tips.size > 0 ? withoutEnds(way, old, (i) => isThere(way, i)) : way;
    return at.inRows || level.edges.length === 0 ? [...level.edges] : straightRun(model, level);
  });
  if (cut.length === 0)
    throw new HemError('no-room', 'The seam cannot move so little: choose a place further off.');
  if (side.tips.size > 0) return { sewn: run.edges, cut, strip: [] };
  const passedBy = (faces: ReadonlySet<number>) =>
    run.edges.filter((_, i) => faces.has(connectivity.cornerFace[side.corners[i]]));
  const between = at.inRows ? strip : upTo(model, side, cut);
  // Where the straight way leaks, as round a hole, the level itself parts what is on its sides.
  if (between.size === 0) return { sewn: passedBy(strip), cut: [...edge], strip: [...strip] };
  return { sewn: passedBy(between), cut, strip: [...between] };
}

/** Faces, and with them all that they part from the largest rest of the shell. */
function withIslands(model: CutModel, own: Uint32Array, faces: ReadonlySet<number>): Set<number> {
  const { connectivity, seams } = model;
  const isSide = (e: number) =>
    [0, 1].some((k) =>
      faces.has(connectivity.cornerFace[connectivity.edgeCorners[connectivity.edgeCornerStart[e] + k]]),
    );
  const seen = new Set(faces);
  const islands: ReadonlySet<number>[] = [];
  for (const start of own) {
    if (seen.has(start)) continue;
    const island = flood(model, [start], (e) => seams[e] === 1 || isSide(e));
    for (const f of island) seen.add(f);
    islands.push(island);
  }
  islands.sort((a, b) => b.size - a.size);
  return new Set([...faces, ...islands.slice(1).flatMap((island) => [...island])]);
}

/** All faces that hang together with some, but for edges that bar the way. */
function flood(
  { mesh, connectivity }: Pick<CutModel, 'mesh' | 'connectivity'>,
  start: Iterable<number>,
  isBarred: (edge: number) => boolean,
): Set<number> {
  const found = new Set(start);
  for (const f of found)
    for (let c = mesh.faceStart[f]; c < mesh.faceStart[f + 1]; c++) {
      const e = connectivity.cornerEdge[c];
      if (!connectivity.isInterior[e] || isBarred(e)) continue;
      for (const k of [0, 1])
        found.add(connectivity.cornerFace[connectivity.edgeCorners[connectivity.edgeCornerStart[e] + k]]);
    }
  return found;
}

/** A run without what leads to it from the ends of the old seam. */
function withoutEnds(
  { edges, vertices, closed }: Run,
  old: ReadonlySet<number>,
  isThere: (i: number) => boolean,
): Run {
  let [first, last] = [0, edges.length];
  if (old.has(vertices[0])) while (first < last && !isThere(first)) first++;
  if (old.has(vertices[last])) while (last > first && !isThere(last)) last--;
  return {
    edges: edges.slice(first, last),
    vertices: vertices.slice(first, last + 1),
    closed: closed && first === 0,
  };
}

/** Faces of a side that can be reached from its run without crossing a seam or the new one; none where that is the whole shell. */
function upTo(model: CutModel, side: Side, cut: readonly number[]): Set<number> {
  const { connectivity, seams, shells } = model;
  const isCut = new Set(cut);
  const beside = side.corners
    .filter((c) => !isCut.has(connectivity.cornerEdge[c]))
    .map((c) => connectivity.cornerFace[c]);
  const found = flood(model, beside, (e) => seams[e] === 1 || isCut.has(e));
  return found.size < facesOfShell(shells, side.shell).length ? found : new Set();
}
