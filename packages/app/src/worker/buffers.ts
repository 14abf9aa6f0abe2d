import { current, type HemDocument, shellsOf, solidOf, topologyOf } from '@blunt-hem/core/document/document';
import { GRAIN } from '@blunt-hem/core/document/grainMark';
import { cornerNormals } from '@blunt-hem/core/formats/cornerNormals';
import type { JobOutput } from '@blunt-hem/core/jobs/index';
import type { Connectivity } from '@blunt-hem/core/mesh/connectivity';
import { boundingBox } from '@blunt-hem/core/mesh/mesh';
import { type Model, repeatable } from '@blunt-hem/core/mesh/model';
import { mainKind, PART_KINDS, partsBy } from '@blunt-hem/core/mesh/parts';
import type { Triangulation } from '@blunt-hem/core/mesh/triangulate';
import { edgeChains } from '@blunt-hem/core/select/edgeChains';
import {
  type FlatBuffers,
  type ModelBuffers,
  NO_UV,
  NOWHERE,
  type OcclusionBuffers,
  type PartList,
  type PatchList,
} from './protocol.ts';

export function modelBuffers(document: HemDocument): ModelBuffers {
  const { model } = document;
  const { mesh, triangulation, connectivity } = topologyOf(model);
  const { triangleCorners, triangleFace } = triangulation;
  const corner = cornerNormals(model);
  const solid = solidOf(document);
  const drawn = drawnCorners(triangulation);
  const positions = new Float32Array(3 * triangleCorners.length);
  const normals = new Int16Array(3 * triangleCorners.length);
  for (let i = 0; i < triangleCorners.length; i++) {
    const c = triangleCorners[i];
    for (let k = 0; k < 3; k++) {
      positions[3 * i + k] = solid.positions[3 * mesh.cornerVertex[c] + k];
      normals[3 * i + k] = Math.round(32_767 * corner[3 * c + k]);
    }
  }
  return {
    name: model.name,
    repeats: repeatable(model).format,
    positions,
    normals,
    triangleFace: triangleFace.slice(),
    parts: partLists(model, connectivity),
    edgeEnds: edgeEnds(connectivity, drawn),
    cornerDrawn: drawn,
    cornerVertex: triangleCorners.map((c) => mesh.cornerVertex[c]),
    edgeVertices: connectivity.edgeVertices.slice(),
    borders: borderEdges(connectivity),
    box: boundingBox(solid.positions),
  };
}

/** The first drawn vertex at each corner. */
function drawnCorners({ triangleCorners }: Triangulation): Uint32Array {
  let corners = 0;
  for (const c of triangleCorners) corners = Math.max(corners, c + 1);
  const drawn = new Uint32Array(corners).fill(NOWHERE);
  for (let i = triangleCorners.length; i-- > 0; ) drawn[triangleCorners[i]] = i;
  return drawn;
}

/** Where the ends of each edge are drawn, on both its sides. */
function edgeEnds(
  { isInterior, edgeCornerStart, edgeCorners, nextCorner }: Connectivity,
  drawn: Uint32Array,
): Uint32Array {
  const ends = new Uint32Array(4 * isInterior.length).fill(NOWHERE);
  for (let e = 0; e < isInterior.length; e++) {
    const first = edgeCornerStart[e];
    for (let side = 0; side < Math.min(2, edgeCornerStart[e + 1] - first); side++) {
      const c = edgeCorners[first + side];
      ends[4 * e + 2 * side] = drawn[c];
      ends[4 * e + 2 * side + 1] = drawn[nextCorner[c]];
    }
  }
  return ends;
}

/** Edges of one face, or of more than two. */
function borderEdges({ isInterior }: Connectivity): Uint32Array {
  const found: number[] = [];
  for (let e = isInterior.indexOf(0); e >= 0; e = isInterior.indexOf(0, e + 1)) found.push(e);
  return Uint32Array.from(found);
}

/** The main kind first. */
function partLists(model: Model, connectivity: Connectivity): PartList[] {
  const main = mainKind(model);
  const kinds = [main, ...PART_KINDS.filter((kind) => kind !== main)];
  return kinds.flatMap((kind) => {
    const { facePart, names } = partsBy(kind, model, connectivity);
    if (names.length < 2 && kind !== main) return [];
    const faces = new Array<number>(names.length).fill(0);
    for (const part of facePart) faces[part]++;
    return [{ kind, facePart: facePart.slice(), names, faces }];
  });
}

/** What is drawn of the flat, by what it follows from. */
export const FLAT_PARTS = ['uv', 'seams', 'pins', 'stays', 'grain'] as const;
export type FlatPart = (typeof FLAT_PARTS)[number];

/** What is drawn of the flat; of some of it only what follows from that. */
export function flatBuffers(document: HemDocument): FlatBuffers;
export function flatBuffers(document: HemDocument, parts: ReadonlySet<FlatPart>): Partial<FlatBuffers>;
export function flatBuffers(
  document: HemDocument,
  parts: ReadonlySet<FlatPart> = new Set(FLAT_PARTS),
): Partial<FlatBuffers> {
  return {
    ...(parts.has('uv') && { uv: drawnUv(document) }),
    ...(parts.has('seams') && drawnSeams(document)),
    ...(parts.has('pins') && { pins: pinnedPlaces(document) }),
    ...(parts.has('stays') && { stays: markedEdges(document.stays) }),
    ...(parts.has('grain') && drawnGrain(document)),
  };
}

function drawnUv(document: HemDocument): Float32Array {
  const { triangleCorners } = topologyOf(document.model).triangulation;
  const { uv: cornerUv } = current(document);
  const uv = new Float32Array(2 * triangleCorners.length);
  for (let i = 0; i < triangleCorners.length; i++) {
    const c = triangleCorners[i];
    const u = cornerUv[2 * c];
    const v = cornerUv[2 * c + 1];
    uv[2 * i] = Number.isNaN(u) ? NO_UV : u;
    uv[2 * i + 1] = Number.isNaN(v) ? NO_UV : v;
  }
  return uv;
}

/** Seams, and the shells that they make. */
function drawnSeams(document: HemDocument): Pick<FlatBuffers, 'faceShell' | 'seams' | 'seamBreaks'> {
  const { connectivity } = topologyOf(document.model);
  const marked = markedEdges(document.seams).filter((e) => connectivity.isInterior[e] === 1);
  const { edges: seams, breaks: seamBreaks } = edgeChains(connectivity, marked);
  return { faceShell: shellsOf(document).faceShell.slice(), seams, seamBreaks };
}

function drawnGrain({ grain: marks }: HemDocument): Pick<FlatBuffers, 'grain' | 'grainMarks'> {
  const grain = [GRAIN.up, GRAIN.onward, GRAIN.back]
    .flatMap((mark) => [...markedEdges(marks, mark)])
    .sort((a, b) => a - b);
  return { grain: Uint32Array.from(grain), grainMarks: Uint8Array.from(grain, (e) => marks[e]) };
}

/** Edges that are marked. Most edges are not, and the browser looks for the next one faster than a loop. */
function markedEdges(marks: Uint8Array, mark = 1): Uint32Array {
  const found: number[] = [];
  for (let e = marks.indexOf(mark); e >= 0; e = marks.indexOf(mark, e + 1)) found.push(e);
  return Uint32Array.from(found);
}

/** One drawn vertex for every place that is pinned. */
function pinnedPlaces(document: HemDocument): Uint32Array {
  if (!document.pins.includes(1)) return new Uint32Array(0);
  const { triangleCorners } = topologyOf(document.model).triangulation;
  const { cornerWedge } = shellsOf(document);
  const drawn = new Map<number, number>();
  triangleCorners.forEach((c, i) => {
    if (document.pins[c]) drawn.set(cornerWedge[c], i);
  });
  return Uint32Array.from(drawn.values());
}

/** Patches, counted and as they are drawn. */
export function patchList({ model, patches, patchNames, patchWeights }: HemDocument): PatchList {
  const faces = patchNames.map(() => 0);
  for (const patch of patches) if (patch > 0) faces[patch - 1]++;
  const { triangleFace } = topologyOf(model).triangulation;
  const weights = patchNames.map((_, i) => patchWeights[i] ?? 1);
  const triangles = Float32Array.from(triangleFace, (f) => patches[f]);
  return { names: patchNames, faces, weights, triangles };
}

/** How the sky falls on every drawn vertex, and on the ground. */
export function occlusionBuffers(
  model: Model,
  { vertices, ground, middle, side }: JobOutput<'ambient-occlusion'>,
): OcclusionBuffers {
  const { mesh, triangulation } = topologyOf(model);
  const corners = Uint8Array.from(triangulation.triangleCorners, (c) => vertices[mesh.cornerVertex[c]]);
  return { corners, ground, middle, side };
}
