import { bucket } from '../mesh/connectivity.ts';
import type { Mesh } from '../mesh/mesh.ts';
import { FACE_FIELDS, type FaceField, type Model, withFields } from '../mesh/model.ts';
import { facesOfShell } from '../surface/shells.ts';
import { applyDelta, type Delta, deltaOf, type NumberArray, type Runs, reversedDelta } from './delta.ts';
import { type HemDocument, shellsOf } from './document.ts';
import type { MarkField, Marks, ValueField } from './fields.ts';
import { applyRemesh, type Remesh, reversedRemesh } from './remesh.ts';

/** A difference between two documents that can be applied either way. */
export interface Patch {
  readonly changes: readonly Change[];
  /** What the artist should hear: what was left out, what was repaired. */
  readonly notes: readonly string[];
}

export type Change = MarksChange | UvChange | ValueChange | ModelChange | Remesh | Replacement;

export interface MarksChange {
  readonly kind: 'marks';
  readonly field: MarkField;
  readonly index: Uint32Array;
  readonly before: Uint8Array;
  readonly after: Uint8Array;
}

/** New places in one UV set. Where all corners of a vertex share theirs, before and after, it is kept once, for the vertex. */
export interface UvChange {
  readonly kind: 'uv';
  readonly set: number;
  readonly vertices: Places;
  readonly corners: Places;
}

/** UV of vertices or corners: `2 × at.length`. */
export interface Places {
  readonly at: Uint32Array;
  readonly before: Float64Array;
  readonly after: Float64Array;
}

export interface ValueChange {
  readonly kind: 'value';
  readonly field: ValueField;
  readonly before: number;
  readonly after: number;
}

/** What the file said beside the mesh. */
export interface ModelChange {
  readonly kind: 'model';
  readonly before: Partial<Model>;
  readonly after: Partial<Model>;
  /** Of arrays with a value for each face, only what differs. */
  readonly perFace: Readonly<Partial<Record<FaceField, Delta>>>;
}

/** All of a document that hangs on its mesh, whole, as projects kept it before there were deltas. */
export interface Replacement {
  readonly kind: 'replacement';
  readonly before: Whole;
  readonly after: Whole;
}
export interface Whole extends Marks, Pick<HemDocument, 'uvSets'> {
  /** Only the fields that change. */
  readonly model: Partial<Model>;
}

export const NO_CHANGE: Patch = { changes: [], notes: [] };

export function applyPatch(document: HemDocument, patch: Patch): HemDocument {
  return patch.changes.reduce(applyChange, document);
}

/** The patch that takes this one back. */
export const inverse = (patch: Patch): Patch => ({
  changes: patch.changes.map(reversed).reverse(),
  notes: [],
});

function reversed(change: Change): Change {
  switch (change.kind) {
    case 'uv':
      return { ...change, vertices: swapped(change.vertices), corners: swapped(change.corners) };
    case 'model': {
      const perFace = Object.entries(change.perFace).map(([key, delta]) => [key, reversedDelta(delta)]);
      return { ...swapped(change), perFace: Object.fromEntries(perFace) };
    }
    case 'remesh':
      return reversedRemesh(change);
    default:
      return swapped(change) as Change;
  }
}

const swapped = <T extends { readonly before: unknown; readonly after: unknown }>(change: T): T => ({
  ...change,
  before: change.after,
  after: change.before,
});

function applyChange(document: HemDocument, change: Change): HemDocument {
  switch (change.kind) {
    case 'marks': {
      const marks = document[change.field].slice();
      for (let i = 0; i < change.index.length; i++) marks[change.index[i]] = change.after[i];
      return { ...document, [change.field]: marks };
    }
    case 'uv': {
      const uv = placedUv(document.model.mesh, document.uvSets[change.set].uv, change);
      return {
        ...document,
        uvSets: document.uvSets.map((set, i) => (i === change.set ? { ...set, uv } : set)),
      };
    }
    case 'value':
      return { ...document, [change.field]: change.after };
    case 'model': {
      const model = withFields(document.model, change);
      const runs = unmoved(document.model.faceObject.length);
      const lists = Object.entries(change.perFace).map(([key, delta]) => [
        key,
        applyDelta(document.model[key as FaceField] as NumberArray, delta, runs, 1),
      ]);
      return { ...document, model: { ...model, ...Object.fromEntries(lists) } };
    }
    case 'remesh':
      return applyRemesh(document, change);
    case 'replacement':
      return { ...document, ...change.after, model: { ...document.model, ...change.after.model } };
  }
}

const unmoved = (items: number): Runs => ({ before: items, after: items, kept: Uint32Array.of(0, 0, items) });

function placedUv(mesh: Mesh, old: Float64Array, { vertices, corners }: UvChange): Float64Array {
  const uv = old.slice();
  const put = (corner: number, { after }: Places, i: number) => {
    uv[2 * corner] = after[2 * i];
    uv[2 * corner + 1] = after[2 * i + 1];
  };
  if (vertices.at.length > 0) {
    const { start, items } = cornersAt(mesh);
    for (let i = 0; i < vertices.at.length; i++) {
      const v = vertices.at[i];
      for (let k = start[v]; k < start[v + 1]; k++) put(items[k], vertices, i);
    }
  }
  for (let i = 0; i < corners.at.length; i++) put(corners.at[i], corners, i);
  return uv;
}

const cornerLists = new WeakMap<Mesh, { readonly start: Uint32Array; readonly items: Uint32Array }>();

/** Corners of every vertex, worked out once per mesh. */
function cornersAt(mesh: Mesh) {
  let lists = cornerLists.get(mesh);
  if (!lists) {
    lists = bucket(mesh.cornerVertex, mesh.positions.length / 3);
    cornerLists.set(mesh, lists);
  }
  return lists;
}

/** Corners whose UV a change touches. */
export function* cornersOf(mesh: Mesh, { vertices, corners }: UvChange): Generator<number> {
  if (vertices.at.length > 0) {
    const { start, items } = cornersAt(mesh);
    for (const v of vertices.at) for (let k = start[v]; k < start[v + 1]; k++) yield items[k];
  }
  yield* corners.at;
}

/** Marks set to one value; those that have it already are left out. */
export function markChange(
  document: HemDocument,
  field: MarkField,
  index: Iterable<number>,
  value: 0 | 1,
): MarksChange {
  const marks = document[field];
  const changed = Uint32Array.from(new Set([...index].filter((i) => marks[i] !== value)));
  return {
    kind: 'marks',
    field,
    index: changed,
    before: Uint8Array.from(changed, () => 1 - value),
    after: new Uint8Array(changed.length).fill(value),
  };
}

/**
 * New UVs for whole shells of a document; what does not differ is left out.
 *
 * @param uvOf  for each shell, UV per shell vertex
 */
export function uvChange(document: HemDocument, uvOf: ReadonlyMap<number, Float64Array>): UvChange {
  const { mesh } = document.model;
  const shells = shellsOf(document);
  const old = document.uvSets[document.currentUv].uv;
  const next = old.slice();
  for (const [shell, uv] of uvOf) {
    const first = shells.wedgeStart[shell];
    for (const f of facesOfShell(shells, shell)) {
      for (let c = mesh.faceStart[f]; c < mesh.faceStart[f + 1]; c++) {
        const v = shells.cornerWedge[c] - first;
        next[2 * c] = uv[2 * v];
        next[2 * c + 1] = uv[2 * v + 1];
      }
    }
  }
  return uvDifference(mesh, document.currentUv, old, next);
}

/** What leads from one set of UVs to another. */
function uvDifference(mesh: Mesh, set: number, old: Float64Array, next: Float64Array): UvChange {
  const { start, items } = cornersAt(mesh);
  const same = (a: Float64Array, i: number, b: Float64Array, j: number) =>
    Object.is(a[2 * i], b[2 * j]) && Object.is(a[2 * i + 1], b[2 * j + 1]);
  const vertices: number[] = [];
  const corners: number[] = [];
  for (let v = 0; v + 1 < start.length; v++) {
    const first = items[start[v]];
    let [shared, changed] = [true, false];
    for (let k = start[v]; k < start[v + 1]; k++) {
      const c = items[k];
      if (!same(old, c, next, c)) changed = true;
      if (!same(old, c, old, first) || !same(next, c, next, first)) shared = false;
    }
    if (!changed) continue;
    if (shared) vertices.push(v);
    else
      for (let k = start[v]; k < start[v + 1]; k++)
        if (!same(old, items[k], next, items[k])) corners.push(items[k]);
  }
  const places = (at: readonly number[], cornerOf: (i: number) => number): Places => {
    const before = new Float64Array(2 * at.length);
    const after = new Float64Array(2 * at.length);
    for (let i = 0; i < at.length; i++) {
      const c = cornerOf(at[i]);
      before[2 * i] = old[2 * c];
      before[2 * i + 1] = old[2 * c + 1];
      after[2 * i] = next[2 * c];
      after[2 * i + 1] = next[2 * c + 1];
    }
    return { at: Uint32Array.from(at), before, after };
  };
  return {
    kind: 'uv',
    set,
    vertices: places(vertices, (v) => items[start[v]]),
    corners: places(corners, (c) => c),
  };
}

/** The change that leads to other fields of the model beside its mesh. */
export function modelChange(model: Model, fields: Partial<Omit<Model, 'mesh'>>): ModelChange {
  const before: Record<string, unknown> = {};
  const after: Record<string, unknown> = {};
  const perFace: Partial<Record<FaceField, Delta>> = {};
  for (const key of Object.keys(fields) as (keyof typeof fields)[]) {
    const [old, next] = [model[key], fields[key]];
    if (old === next) continue;
    if ((FACE_FIELDS as readonly string[]).includes(key) && old && next) {
      const list = old as NumberArray;
      perFace[key as FaceField] = deltaOf(list, next as NumberArray, unmoved(list.length), 1);
    } else {
      before[key] = old;
      after[key] = next;
    }
  }
  return { kind: 'model', before, after, perFace };
}

export const isEmpty = (change: Change): boolean => {
  switch (change.kind) {
    case 'marks':
      return change.index.length === 0;
    case 'uv':
      return change.vertices.at.length + change.corners.at.length === 0;
    case 'value':
      return change.before === change.after;
    default:
      return false;
  }
};

/** Whether a patch leads to another mesh or other names. */
export const changesModel = ({ changes }: Patch): boolean =>
  changes.some(({ kind }) => kind === 'remesh' || kind === 'replacement' || kind === 'model');

/** Memory that the arrays of a patch take, bytes. */
export function byteSize(value: unknown): number {
  if (ArrayBuffer.isView(value)) return value.byteLength;
  if (Array.isArray(value)) return value.reduce((sum: number, item) => sum + byteSize(item), 0);
  if (typeof value === 'object' && value !== null) return byteSize(Object.values(value));
  return typeof value === 'string' ? 2 * value.length : 8;
}
