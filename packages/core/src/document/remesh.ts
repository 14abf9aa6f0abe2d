import type { MeshEdit } from '../mesh/edit.ts';
import { faceCount, type Mesh, vertexCount } from '../mesh/mesh.ts';
import { FACE_FIELDS, type FaceField, type Model, type UvSet, withFields } from '../mesh/model.ts';
import {
  type ArrayDelta,
  applyArrayDelta,
  arrayDelta,
  GONE,
  type NumberArray,
  type Runs,
  renumbering,
  reverseArrayDelta,
  reversed,
  runsOf,
} from './arrayDelta.ts';
import { carryAlong } from './carryAlong.ts';
import { marksAtCorners, marksOfEdges } from './cornerMarks.ts';
import { freshState, type HemDocument, withCurrent } from './document.ts';
import {
  MARK_FIELDS,
  MARKS,
  type MarkArray,
  type MarkField,
  markArrayOf,
  SET_MARK_FIELDS,
  type SetMarkField,
} from './fields.ts';

/** The change to another mesh: what was kept in order, and beside it only what was taken out, put in or altered. */
export interface Remesh {
  readonly kind: 'remesh';
  readonly faces: Runs;
  readonly corners: Runs;
  readonly vertices: Runs;
  readonly positions: ArrayDelta<Float64Array>;
  /** Corners of each face. */
  readonly sizes: ArrayDelta<Uint32Array>;
  readonly cornerVertex: ArrayDelta<Uint32Array>;
  /** 1 for each corner that begins a seam. */
  readonly cornerSeams: ArrayDelta<MarkArray>;
  /** Of each UV set of the document, and of those of the file. */
  readonly uv: readonly ArrayDelta<Float64Array>[];
  readonly fileUv: readonly ArrayDelta<Float64Array>[];
  readonly marks: Readonly<Partial<Record<MarkField, ArrayDelta<MarkArray>>>>;
  /** Marks of the sets that are put away, in their order; none in what was kept before sets had marks of their own. */
  readonly away?: readonly SetMarks[];
  readonly perFace: Readonly<Partial<Record<FaceField, ArrayDelta>>>;
  /** Fields of the model that differ otherwise. */
  readonly before: Partial<Model>;
  readonly after: Partial<Model>;
}

/** Marks of a UV set that is put away. */
interface SetMarks {
  readonly cornerSeams: ArrayDelta<MarkArray>;
  readonly marks: Readonly<Partial<Record<SetMarkField, ArrayDelta<MarkArray>>>>;
}

/**
 * The change that an edit of the mesh makes, and everything taken along: names, materials, UVs, seams, marks and what is hidden. UVs
 * keep their places; where faces that lie apart in the flat come to share an edge, the edge becomes a seam. Faces that were
 * turned over are marked stale, for their UVs are mirrored now. The file can no longer be repeated to the byte: exports are
 * composed anew.
 */
export function remeshed(document: HemDocument, edit: MeshEdit): Remesh {
  return remeshBetween(document, carryAlong(document, edit), edit);
}

/** Marks that are kept by themselves; where a seam is, is kept beside them. */
const OTHER_MARKS = MARK_FIELDS.filter((field) => field !== 'seams');
const OTHER_SET_MARKS = SET_MARK_FIELDS.filter((field) => field !== 'seams');

/** Fields that have a place of their own in a remesh. */
const OWN_PLACE = new Set<string>(['mesh', 'uvSets', ...FACE_FIELDS]);

function remeshBetween(from: HemDocument, to: HemDocument, { faceSource, cornerSource }: MeshEdit): Remesh {
  const [old, next] = [from.model, to.model];
  const faces = runsOf(faceSource, faceCount(old.mesh));
  const corners = runsOf(cornerSource, old.mesh.cornerVertex.length);
  const vertices = runsOf(vertexSource(old.mesh, next.mesh, cornerSource), vertexCount(old.mesh));
  const renumber = renumbering(vertices);
  const fields = (Object.keys({ ...old, ...next }) as (keyof Model)[]).filter(
    (key) => !OWN_PLACE.has(key) && old[key] !== next[key],
  );
  const some = (model: Model): Partial<Model> => Object.fromEntries(fields.map((key) => [key, model[key]]));
  const uvDelta = (a: UvSet, b: UvSet) => arrayDelta(a.uv, b.uv, corners, 2);
  return {
    kind: 'remesh',
    faces,
    corners,
    vertices,
    positions: arrayDelta(old.mesh.positions, next.mesh.positions, vertices, 3),
    sizes: arrayDelta(sizesOf(old.mesh), sizesOf(next.mesh), faces, 1),
    cornerVertex: arrayDelta(old.mesh.cornerVertex, next.mesh.cornerVertex, corners, 1, (v) => renumber[v]),
    cornerSeams: arrayDelta(marksAtCorners(from, 'seams'), marksAtCorners(to, 'seams'), corners, 1),
    uv: from.uvSets.map((set, i) => uvDelta(set, to.uvSets[i])),
    away: awayViews(from).map((view, i) => setMarksBetween(view, awayViews(to)[i], faces, corners)),
    fileUv: old.uvSets.map((set, i) => uvDelta(set, next.uvSets[i])),
    marks: marksBetween(from, to, OTHER_MARKS, faces, corners),
    perFace: Object.fromEntries(
      FACE_FIELDS.flatMap((key) => {
        const [a, b] = [old[key], next[key]];
        return a && b ? [[key, arrayDelta(a as NumberArray, b as NumberArray, faces, 1)]] : [];
      }),
    ),
    before: some(old),
    after: some(next),
  };
}

const marksBetween = (
  from: HemDocument,
  to: HemDocument,
  fields: readonly MarkField[],
  faces: Runs,
  corners: Runs,
): Partial<Record<MarkField, ArrayDelta<MarkArray>>> =>
  Object.fromEntries(
    fields.map((field) => [
      field,
      arrayDelta(
        marksAtCorners(from, field),
        marksAtCorners(to, field),
        MARKS[field].per === 'face' ? faces : corners,
        1,
      ),
    ]),
  );

const setMarksBetween = (from: HemDocument, to: HemDocument, faces: Runs, corners: Runs): SetMarks => ({
  cornerSeams: arrayDelta(marksAtCorners(from, 'seams'), marksAtCorners(to, 'seams'), corners, 1),
  marks: marksBetween(from, to, OTHER_SET_MARKS, faces, corners),
});

/** The document with each of the sets current that are put away. */
const awayViews = (document: HemDocument): HemDocument[] =>
  document.uvSets.filter(({ away }) => away).map(({ id }) => withCurrent(document, id));

/** An old vertex for each new one: one that a corner had before; for points of no face the one that lies there, in order. */
function vertexSource(old: Mesh, next: Mesh, cornerSource: Uint32Array): Uint32Array {
  const source = new Uint32Array(vertexCount(next)).fill(GONE);
  for (let c = cornerSource.length; c-- > 0; )
    source[next.cornerVertex[c]] = old.cornerVertex[cornerSource[c]];
  let before = 0;
  for (let v = 0; v < source.length; v++) {
    if (source[v] !== GONE) {
      before = source[v] + 1;
      continue;
    }
    const same = [0, 1, 2].every((k) => Object.is(old.positions[3 * before + k], next.positions[3 * v + k]));
    if (same) source[v] = before++;
  }
  return source;
}

const sizesOf = ({ faceStart }: Mesh): Uint32Array =>
  Uint32Array.from({ length: faceStart.length - 1 }, (_, f) => faceStart[f + 1] - faceStart[f]);

/** The mesh a remesh leads to. */
export function meshAfter({ mesh }: Model, { faces, corners, vertices, ...remesh }: Remesh): Mesh {
  const renumber = renumbering(vertices);
  const sizes = applyArrayDelta(sizesOf(mesh), remesh.sizes, faces, 1);
  const faceStart = new Uint32Array(sizes.length + 1);
  for (let f = 0; f < sizes.length; f++) faceStart[f + 1] = faceStart[f] + sizes[f];
  return {
    positions: applyArrayDelta(mesh.positions, remesh.positions, vertices, 3),
    faceStart,
    cornerVertex: applyArrayDelta(mesh.cornerVertex, remesh.cornerVertex, corners, 1, (v) => renumber[v]),
  };
}

export function applyRemesh(document: HemDocument, remesh: Remesh): HemDocument {
  const { model } = document;
  const { faces, corners } = remesh;
  const mesh = meshAfter(model, remesh);
  const sets = <S extends UvSet>(list: readonly S[], deltas: readonly ArrayDelta<Float64Array>[]): S[] =>
    list.map((set, i) => ({ ...set, uv: applyArrayDelta(set.uv, deltas[i], corners, 2) }));
  const perFace = Object.entries(remesh.perFace).map(([key, delta]) => [
    key,
    applyArrayDelta(model[key as FaceField] as NumberArray, delta, faces, 1),
  ]);
  const next: Model = {
    ...withFields(model, remesh),
    ...Object.fromEntries(perFace),
    mesh,
    uvSets: sets(model.uvSets, remesh.fileUv),
  };
  /** A mark of a document that has a set current, as a delta leaves it. */
  const markOf = (
    view: HemDocument,
    field: MarkField,
    given: ArrayDelta<MarkArray> | undefined,
  ): MarkArray => {
    const { per } = MARKS[field];
    const runs = per === 'face' ? faces : corners;
    const list = applyArrayDelta(
      marksAtCorners(view, field),
      given ?? blankArrayDelta(markArrayOf(field), runs),
      runs,
      1,
    );
    return per === 'edge' ? marksOfEdges(next, (c) => list[c]) : list;
  };
  const marks = MARK_FIELDS.map((field) => [
    field,
    markOf(document, field, field === 'seams' ? remesh.cornerSeams : remesh.marks[field]),
  ]);
  let place = 0;
  const uvSets = sets(document.uvSets, remesh.uv).map((set) => {
    if (!set.away) return set;
    const kept = remesh.away?.[place++];
    if (!kept) return { ...set, away: freshState(next, set.uv) };
    const view = withCurrent(document, set.id);
    const own = SET_MARK_FIELDS.map((field) => [
      field,
      markOf(view, field, field === 'seams' ? kept.cornerSeams : kept.marks[field]),
    ]);
    return { ...set, away: { ...set.away, ...Object.fromEntries(own) } };
  });
  return { ...document, ...Object.fromEntries(marks), model: next, uvSets };
}

/** Of a mark that did not exist when the change was made: what is kept keeps it, what is new has none. */
const blankArrayDelta = (
  Kind: ReturnType<typeof markArrayOf>,
  { before, after, kept }: Runs,
): ArrayDelta<MarkArray> => {
  let stay = 0;
  for (let r = 2; r < kept.length; r += 3) stay += kept[r];
  return {
    gone: new Kind(before - stay),
    fresh: new Kind(after - stay),
    at: new Uint32Array(0),
    before: new Kind(0),
    after: new Kind(0),
  };
};

export function reversedRemesh(remesh: Remesh): Remesh {
  const each = <T extends object>(deltas: T): T =>
    Object.fromEntries(Object.entries(deltas).map(([key, delta]) => [key, reverseArrayDelta(delta)])) as T;
  return {
    kind: 'remesh',
    faces: reversed(remesh.faces),
    corners: reversed(remesh.corners),
    vertices: reversed(remesh.vertices),
    positions: reverseArrayDelta(remesh.positions),
    sizes: reverseArrayDelta(remesh.sizes),
    cornerVertex: reverseArrayDelta(remesh.cornerVertex),
    cornerSeams: reverseArrayDelta(remesh.cornerSeams),
    uv: remesh.uv.map(reverseArrayDelta),
    fileUv: remesh.fileUv.map(reverseArrayDelta),
    marks: each(remesh.marks),
    ...(remesh.away && {
      away: remesh.away.map(({ cornerSeams, marks }) => ({
        cornerSeams: reverseArrayDelta(cornerSeams),
        marks: each(marks),
      })),
    }),
    perFace: each(remesh.perFace),
    before: remesh.after,
    after: remesh.before,
  };
}
