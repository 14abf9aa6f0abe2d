import type { MeshEdit } from '../mesh/edit.ts';
import { FACE_FIELDS, type Model, type UvSet } from '../mesh/model.ts';
import { seamsFromUv } from '../surface/shells.ts';
import type { NumberArray } from './arrayDelta.ts';
import { marksAtCorners, marksOfEdges } from './cornerMarks.ts';
import { current, type HemDocument, topologyOf, withCurrent } from './document.ts';
import {
  MARK_FIELDS,
  MARKS,
  type MarkArray,
  type MarkField,
  type Marks,
  markArrayOf,
  setStateOf,
} from './fields.ts';
import { turnedGrain } from './grainMark.ts';

/** Marks that go along with what they mark; where a seam is, UVs say as well. */
const OTHER_MARKS = MARK_FIELDS.filter((field) => field !== 'seams');

/** The document with another mesh. */
export function carryAlong(document: HemDocument, edit: MeshEdit): HemDocument {
  const { faceSource, cornerSource, cornerShift } = edit;
  const { nextCorner } = topologyOf(document.model).connectivity;
  const old = document.model;
  const perFace = <T extends NumberArray>(list: T): T => {
    const next = new (list.constructor as new (length: number) => T)(faceSource.length);
    for (let f = 0; f < next.length; f++) next[f] = list[faceSource[f]];
    return next;
  };
  const perCorner = <S extends UvSet>(set: S): S => {
    const uv = new Float64Array(2 * cornerSource.length);
    for (let c = 0; c < cornerSource.length; c++) {
      const from = 2 * cornerSource[c];
      const to = 2 * nextCorner[cornerSource[c]];
      const shift = cornerShift?.[c] ?? 0;
      for (let k = 0; k < 2; k++) {
        const start = set.uv[from + k];
        uv[2 * c + k] = shift === 0 ? start : start + shift * (set.uv[to + k] - start);
      }
    }
    return { ...set, uv };
  };
  const lists = FACE_FIELDS.flatMap((key) => (old[key] ? [[key, perFace(old[key] as NumberArray)]] : []));
  const model: Model = {
    ...old,
    ...Object.fromEntries(lists),
    mesh: edit.mesh,
    uvSets: old.uvSets.map(perCorner),
    altered: true,
  };
  const { currentUv } = document;
  const moved = document.uvSets.map(perCorner);
  /** Marks of a document that has a set current, with its new UVs. */
  const marksWith = (view: HemDocument, uv: Float64Array): Marks => {
    const marks = Object.fromEntries(
      OTHER_MARKS.map((field) => [field, carryMarks(view, edit, model, field)]),
    ) as unknown as Marks;
    for (const f of turnedFaces(document, edit)) marks.stale[f] = 1;
    return { ...marks, seams: carrySeams(view, edit, model, uv) };
  };
  const uvSets = moved.map((set) =>
    set.away
      ? {
          ...set,
          away: setStateOf({ ...set.away, ...marksWith(withCurrent(document, set.id), set.uv) }),
        }
      : set,
  );
  return { ...document, ...marksWith(document, current({ uvSets, currentUv }).uv), model, uvSets };
}

function carryMarks(
  document: HemDocument,
  { faceSource, cornerSource }: MeshEdit,
  model: Model,
  field: MarkField,
): MarkArray {
  const marks = document[field];
  const Kind = markArrayOf(field);
  if (MARKS[field].per === 'face') return new Kind(faceSource.map((f) => marks[f]));
  if (MARKS[field].per === 'corner') return new Kind(cornerSource.map((c) => marks[c]));
  const { connectivity: old } = topologyOf(document.model);
  const atCorners = marksAtCorners(document, field);
  return marksOfEdges(model, (c) => {
    const next = topologyOf(model).connectivity.nextCorner[c];
    const first = sourceOf(old.nextCorner, cornerSource[c], cornerSource[next]);
    if (first === undefined) return 0;
    return first === cornerSource[c] ? atCorners[first] : turnedGrain(atCorners[first]);
  });
}

/** The corner at which an edge between two corners of a face begins there: a face that was turned over runs along its edges the other way. */
const sourceOf = (next: Uint32Array, from: number, to: number): number | undefined =>
  next[from] === to ? from : next[to] === from ? to : undefined;

function carrySeams(
  document: HemDocument,
  { cornerSource }: MeshEdit,
  model: Model,
  uv: Float64Array,
): Uint8Array {
  const { connectivity: old } = topologyOf(document.model);
  const { connectivity } = topologyOf(model);
  const seams = seamsFromUv(connectivity, uv);
  for (let c = 0; c < cornerSource.length; c++) {
    const [from, to] = [cornerSource[c], cornerSource[connectivity.nextCorner[c]]];
    const first = sourceOf(old.nextCorner, from, to);
    if (first !== undefined && document.seams[old.cornerEdge[first]]) seams[connectivity.cornerEdge[c]] = 1;
  }
  return seams;
}

function* turnedFaces(document: HemDocument, { mesh, cornerSource }: MeshEdit): Generator<number> {
  const { nextCorner } = topologyOf(document.model).connectivity;
  for (let f = 0; f + 1 < mesh.faceStart.length; f++) {
    const first = mesh.faceStart[f];
    const [a, b] = [cornerSource[first], cornerSource[first + 1]];
    if (nextCorner[b] === a && nextCorner[a] !== b) yield f;
  }
}
