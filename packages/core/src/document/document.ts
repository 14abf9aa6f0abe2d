import { type Connectivity, connectivityOf } from '../mesh/connectivity.ts';
import { limitPositions } from '../mesh/limitPositions.ts';
import { faceCount, type Mesh } from '../mesh/mesh.ts';
import type { Model, UvSet } from '../mesh/model.ts';
import { type Triangulation, triangulate } from '../mesh/triangulate.ts';
import { boxesOfShells } from '../surface/boxesOfShells.ts';
import { extractShell, faceTriangleStart, type Shell } from '../surface/shell.ts';
import { facesOfShell, type ShellMap, seamsFromUv, shellsFromSeams } from '../surface/shells.ts';
import { type Tile, tilesAround } from '../surface/tiles.ts';
import {
  blankMarks,
  type MarkCounts,
  type Marks,
  type SetState,
  setStateOf,
  VALUES,
  type Values,
} from './fields.ts';

/**
 * Everything an artist has made of a model. Never changed in place: an operation gives a delta, and
 * `applyDelta` gives the next document, sharing with the last whatever the delta left alone.
 */
export interface HemDocument extends Marks, Values {
  readonly model: Model;
  /** At least one, in the order in which files hold them. */
  readonly uvSets: readonly DocumentSet[];
}

/** A UV set of a document. Marks and values of the current one are fields of the document itself; the others have theirs put away. */
export interface DocumentSet extends UvSet {
  /** No other set of the document has it, or ever had. */
  readonly id: number;
  readonly away?: SetState;
}

/** The UV set that is shown and solved. */
export const current = ({ uvSets, currentUv }: Pick<HemDocument, 'uvSets' | 'currentUv'>): DocumentSet =>
  uvSets.find(({ id }) => id === currentUv) as DocumentSet;

/** The document with another of its sets current. */
export function withCurrent(document: HemDocument, id: number): HemDocument {
  const next = document.uvSets.find((set) => set.id === id);
  if (!next?.away) return document;
  const away = setStateOf(document);
  return {
    ...document,
    ...next.away,
    currentUv: id,
    uvSets: document.uvSets.map((set) => {
      if (set.id === document.currentUv) return { ...set, away };
      const { away: _, ...rest } = set;
      return set.id === id ? rest : set;
    }),
  };
}

/** What belongs to a set that was not worked on: seams where its UVs break. */
export function freshState(model: Model, uv: Float64Array): SetState {
  const marks = blankMarks(markCounts(model));
  const isLaid = uv.some((x) => !Number.isNaN(x));
  const seams = isLaid ? seamsFromUv(topologyOf(model).connectivity, uv) : marks.seams;
  const tiles = isLaid ? tilesFor(model, seams, uv) : VALUES.tiles;
  return setStateOf({ ...marks, seams, placed: isLaid ? 1 : 0, tiles });
}

/** The tiles that shells of a file lie in. */
function tilesFor(model: Model, seams: Uint8Array, uv: Float64Array): readonly Tile[] {
  if (uv.every((x) => !(x < 0 || x > 1))) return VALUES.tiles;
  const { mesh, connectivity } = topologyOf(model);
  return tilesAround(boxesOfShells(mesh, shellsFromSeams(mesh, connectivity, seams), uv));
}

export interface OpenOptions {
  /** Whether UVs in the file are kept, and where they break becomes seams. Default true. */
  readonly keepUvs?: boolean;
  /** Which axis points up, 0 for y and 1 for z. Default 0. */
  readonly upAxis?: number;
  /** Which way it looks: see `Stance`. Default 0. */
  readonly front?: number;
}

/** A document of a freshly opened model. */
export function openDocument(
  model: Model,
  { keepUvs = true, upAxis = 0, front = 0 }: OpenOptions = {},
): HemDocument {
  const kept = keepUvs && model.uvSets.length > 0;
  const blank: UvSet = { name: 'UV', uv: new Float64Array(2 * model.mesh.cornerVertex.length).fill(NaN) };
  const [first, ...others] = kept ? model.uvSets : [blank];
  return {
    ...VALUES,
    ...blankMarks(markCounts(model)),
    ...freshState(model, first.uv),
    placed: kept ? 1 : 0,
    setsMade: 1 + others.length,
    upAxis,
    front,
    model,
    uvSets: [
      { ...first, id: 0 },
      ...others.map((set, i) => ({ ...set, id: i + 1, away: freshState(model, set.uv) })),
    ],
  };
}

/** What follows from the mesh alone. */
export interface Topology {
  readonly mesh: Mesh;
  readonly connectivity: Connectivity;
  readonly triangulation: Triangulation;
  readonly triangleStart: Uint32Array;
}

const topologies = new WeakMap<Mesh, Topology>();

/** Takes over what another thread has worked out, and sent along with its mesh. */
export function adoptTopology(topology: Topology): void {
  topologies.set(topology.mesh, topology);
}

/** What was worked out of a mesh, or taken over; undefined where neither was. */
export const knownTopology = (mesh: Mesh): Topology | undefined => topologies.get(mesh);

/** Worked out once per mesh. */
export function topologyOf({ mesh }: Model): Topology {
  let topology = topologies.get(mesh);
  if (!topology) {
    const triangulation = triangulate(mesh);
    topology = {
      mesh,
      connectivity: connectivityOf(mesh),
      triangulation,
      triangleStart: faceTriangleStart(mesh, triangulation),
    };
    topologies.set(mesh, topology);
  }
  return topology;
}

export const markCounts = (model: Model): MarkCounts => ({
  edge: topologyOf(model).connectivity.isInterior.length,
  face: faceCount(model.mesh),
  corner: model.mesh.cornerVertex.length,
});

const shellMaps = new WeakMap<Uint8Array, ShellMap>();

/** The shells of a document, worked out once per set of seams. */
export function shellsOf(document: HemDocument): ShellMap {
  let shells = shellMaps.get(document.seams);
  if (!shells) {
    const { mesh, connectivity } = topologyOf(document.model);
    shells = shellsFromSeams(mesh, connectivity, document.seams);
    shellMaps.set(document.seams, shells);
  }
  return shells;
}

/** The model as it is, or the Catmull–Clark surface of which it is the cage. */
export type Surface = 'cage' | 'smoothed';

const limits = new WeakMap<Mesh, Float64Array>();

/** Where subdivision takes every vertex, worked out once per mesh. */
function limitsOf(mesh: Mesh): Float64Array {
  let positions = limits.get(mesh);
  if (!positions) {
    positions = limitPositions(mesh);
    limits.set(mesh, positions);
  }
  return positions;
}

const solids = new WeakMap<Uint8Array, Mesh>();
const smoothing = new WeakMap<Uint8Array, boolean>();

/** Whether any face is smoothed, looked for once: shells by the thousand ask. */
function isSmoothed({ smoothed }: HemDocument): boolean {
  let any = smoothing.get(smoothed);
  if (any === undefined) {
    any = smoothed.includes(1);
    smoothing.set(smoothed, any);
  }
  return any;
}

/** The surface that is flattened: the mesh, with the vertices of smoothed faces where subdivision takes them. */
export function solidOf(document: HemDocument): Mesh {
  const { smoothed } = document;
  const { mesh } = document.model;
  if (!isSmoothed(document)) return mesh;
  let solid = solids.get(smoothed);
  if (!solid) {
    const positions = mesh.positions.slice();
    const limit = limitsOf(mesh);
    for (let f = 0; f < smoothed.length; f++) {
      if (!smoothed[f]) continue;
      for (let c = mesh.faceStart[f]; c < mesh.faceStart[f + 1]; c++)
        for (let k = 3 * mesh.cornerVertex[c], end = k + 3; k < end; k++) positions[k] = limit[k];
    }
    solid = { ...mesh, positions };
    solids.set(smoothed, solid);
  }
  return solid;
}

/** Shells of one map as they were taken out, by where their vertices lie, for as long as somebody has them. */
const takenOut = new WeakMap<ShellMap, WeakMap<Float64Array, Map<number, WeakRef<Shell>>>>();

/**
 * One shell of a document as a mesh of its own, the same object while somebody has it.
 *
 * @param surface  what of it is meant; where absent, what the document says
 */
export function shellOf(document: HemDocument, shell: number, surface?: Surface): Shell {
  const { mesh, triangulation, triangleStart } = topologyOf(document.model);
  const solid =
    surface === undefined
      ? solidOf(document)
      : surface === 'cage'
        ? mesh
        : { ...mesh, positions: limitsOf(mesh) };
  const map = shellsOf(document);
  const byPlace = takenOut.get(map) ?? new WeakMap<Float64Array, Map<number, WeakRef<Shell>>>();
  takenOut.set(map, byPlace);
  const known = byPlace.get(solid.positions) ?? new Map<number, WeakRef<Shell>>();
  byPlace.set(solid.positions, known);
  let found = known.get(shell)?.deref();
  if (!found) {
    found = extractShell(solid, triangulation, triangleStart, map, shell);
    known.set(shell, new WeakRef(found));
  }
  return found;
}

/** Whether some of a shell lies flat. */
export function hasUv(document: HemDocument, shell: number): boolean {
  const { uv } = current(document);
  const { faceStart } = document.model.mesh;
  return facesOfShell(shellsOf(document), shell).some((f) => !Number.isNaN(uv[2 * faceStart[f]]));
}

/** UV of each vertex of a shell in the current set, `2 × vertexCount`; undefined when any is missing. */
export function shellUv(document: HemDocument, shell: Shell): Float64Array | undefined {
  const uv = uvOfShell(shell, current(document).uv);
  for (let i = 0; i < uv.length; i++) if (Number.isNaN(uv[i])) return undefined;
  return uv;
}

/**
 * UV of each vertex of a shell, `2 × vertexCount`.
 *
 * @param cornerUv  of every corner of the model
 */
export function uvOfShell({ vertexCorner }: Shell, cornerUv: Float64Array): Float64Array {
  const uv = new Float64Array(2 * vertexCorner.length);
  for (let v = 0; v < vertexCorner.length; v++) {
    uv[2 * v] = cornerUv[2 * vertexCorner[v]];
    uv[2 * v + 1] = cornerUv[2 * vertexCorner[v] + 1];
  }
  return uv;
}

/** A document as jobs want it: without the file it came from, which would be copied. */
export const plainDocument = (document: HemDocument): HemDocument => ({
  ...document,
  model: plainModel(document.model),
});

/** A model as jobs want it. */
export const plainModel = (model: Model): Model => ({
  ...model,
  images: model.images.map(({ bytes: _, ...image }) => image),
  source: { format: 'none' },
});
