import { FACE_FIELDS, type FaceField, type Model, withFields } from '../mesh/model.ts';
import {
  type ArrayDelta,
  applyArrayDelta,
  arrayDelta,
  type NumberArray,
  type Runs,
  reverseArrayDelta,
} from './arrayDelta.ts';
import { type DocumentSet, type HemDocument, withCurrent } from './document.ts';
import {
  type MarkArray,
  type MarkField,
  type Marks,
  markArrayOf,
  type ValueField,
  type Values,
} from './fields.ts';
import { applyRemesh, type Remesh, reversedRemesh } from './remesh.ts';
import { placedUv, type UvChange } from './uvChange.ts';

/** A difference between two documents that can be applied either way. */
export interface Delta {
  readonly changes: readonly Change[];
  /** What the artist should hear: what was left out, what was repaired. */
  readonly notes: readonly string[];
}

export type Change =
  | MarksChange
  | UvChange
  | ValueChange
  | ModelChange
  | SetAdded
  | SetRemoved
  | SetRenamed
  | SetSwitched
  | Remesh
  | Replacement;

/** One more UV set, put away, at a place in their order. */
export interface SetAdded {
  readonly kind: 'set-added';
  readonly at: number;
  readonly set: DocumentSet;
}

/** One set that was put away is no more. */
export interface SetRemoved {
  readonly kind: 'set-removed';
  readonly at: number;
  readonly set: DocumentSet;
}

export interface SetRenamed {
  readonly kind: 'set-renamed';
  /** By its lasting id. */
  readonly set: number;
  readonly before: string;
  readonly after: string;
}

/** Another set is current: by their lasting ids. */
export interface SetSwitched {
  readonly kind: 'set-switched';
  readonly before: number;
  readonly after: number;
}

export interface MarksChange {
  readonly kind: 'marks';
  readonly field: MarkField;
  readonly index: Uint32Array;
  readonly before: MarkArray;
  readonly after: MarkArray;
}

export interface ValueChange {
  readonly kind: 'value';
  readonly field: ValueField;
  readonly before: Values[ValueField];
  readonly after: Values[ValueField];
}

/** What the file said beside the mesh. */
export interface ModelChange {
  readonly kind: 'model';
  readonly before: Partial<Model>;
  readonly after: Partial<Model>;
  /** Of arrays with a value for each face, only what differs. */
  readonly perFace: Readonly<Partial<Record<FaceField, ArrayDelta>>>;
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

export const NO_CHANGE: Delta = { changes: [], notes: [] };

export function applyDelta(document: HemDocument, delta: Delta): HemDocument {
  return delta.changes.reduce(applyChange, document);
}

/** The delta that takes this one back. */
export const inverse = (delta: Delta): Delta => ({
  changes: delta.changes.map(reversed).reverse(),
  notes: [],
});

function reversed(change: Change): Change {
  switch (change.kind) {
    case 'uv':
      return { ...change, vertices: swapped(change.vertices), corners: swapped(change.corners) };
    case 'model': {
      const perFace = Object.entries(change.perFace).map(([key, delta]) => [key, reverseArrayDelta(delta)]);
      return { ...swapped(change), perFace: Object.fromEntries(perFace) };
    }
    case 'remesh':
      return reversedRemesh(change);
    case 'set-added':
      return { ...change, kind: 'set-removed' };
    case 'set-removed':
      return { ...change, kind: 'set-added' };
    default:
      return swapped(change) as Change;
  }
}

/** The same, the other way round. */
const swapped = <T extends { readonly before: unknown; readonly after: unknown }>(change: T): T => ({
  ...change,
  before: change.after,
  after: change.before,
});

function applyChange(document: HemDocument, change: Change): HemDocument {
  switch (change.kind) {
    case 'marks':
      return { ...document, [change.field]: markedBy(change, document[change.field]) };
    case 'uv':
      return withSet(document, change.set, (set) => ({
        ...set,
        uv: placedUv(document.model.mesh, set.uv, change),
      }));
    case 'set-added':
      return { ...document, uvSets: document.uvSets.toSpliced(change.at, 0, change.set) };
    case 'set-removed':
      return { ...document, uvSets: document.uvSets.toSpliced(change.at, 1) };
    case 'set-renamed':
      return withSet(document, change.set, (set) => ({ ...set, name: change.after }));
    case 'set-switched':
      return withCurrent(document, change.after);
    case 'value':
      return { ...document, [change.field]: change.after };
    case 'model': {
      const model = withFields(document.model, change);
      const runs = unmoved(document.model.faceObject.length);
      const lists = Object.entries(change.perFace).map(([key, delta]) => [
        key,
        applyArrayDelta(document.model[key as FaceField] as NumberArray, delta, runs, 1),
      ]);
      return { ...document, model: { ...model, ...Object.fromEntries(lists) } };
    }
    case 'remesh':
      return applyRemesh(document, change);
    case 'replacement':
      return { ...document, ...change.after, model: { ...document.model, ...change.after.model } };
  }
}

const withSet = (
  document: HemDocument,
  id: number,
  changed: (set: DocumentSet) => DocumentSet,
): HemDocument => ({
  ...document,
  uvSets: document.uvSets.map((set) => (set.id === id ? changed(set) : set)),
});

const marked = new WeakMap<MarksChange, { readonly from: MarkArray; readonly to: MarkArray }>();

/** The same list each time a change is applied to the same one, so that what is known of it, such as its shells, is not worked out twice. */
function markedBy(change: MarksChange, from: MarkArray): MarkArray {
  const last = marked.get(change);
  if (last?.from === from) return last.to;
  const to = from.slice();
  for (let i = 0; i < change.index.length; i++) to[change.index[i]] = change.after[i];
  marked.set(change, { from, to });
  return to;
}

const unmoved = (items: number): Runs => ({ before: items, after: items, kept: Uint32Array.of(0, 0, items) });

/** Marks set to one value; those that have it already are left out. */
export function markChange(
  document: HemDocument,
  field: MarkField,
  index: Iterable<number>,
  value: number,
): MarksChange {
  const Kind = markArrayOf(field);
  const marks = document[field].slice();
  const changed: number[] = [];
  const before: number[] = [];
  for (const i of index) {
    if (marks[i] === value) continue;
    before.push(marks[i]);
    marks[i] = value;
    changed.push(i);
  }
  return {
    kind: 'marks',
    field,
    index: Uint32Array.from(changed),
    before: new Kind(before),
    after: new Kind(changed.length).fill(value),
  };
}

/** The change that leads to other fields of the model beside its mesh. */
export function modelChange(model: Model, fields: Partial<Omit<Model, 'mesh'>>): ModelChange {
  const before: Record<string, unknown> = {};
  const after: Record<string, unknown> = {};
  const perFace: Partial<Record<FaceField, ArrayDelta>> = {};
  for (const key of Object.keys(fields) as (keyof typeof fields)[]) {
    const [old, next] = [model[key], fields[key]];
    if (old === next) continue;
    if ((FACE_FIELDS as readonly string[]).includes(key) && old && next) {
      const list = old as NumberArray;
      perFace[key as FaceField] = arrayDelta(list, next as NumberArray, unmoved(list.length), 1);
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
      return JSON.stringify(change.before) === JSON.stringify(change.after);
    default:
      return false;
  }
};

/** Whether a delta leads to another mesh or other names. */
export const changesModel = ({ changes }: Delta): boolean =>
  changes.some(({ kind }) => kind === 'remesh' || kind === 'replacement' || kind === 'model');

/** Whether a delta makes another UV set current, so that all that is of a set is another. */
export const switchesSet = ({ changes }: Delta): boolean =>
  changes.some(({ kind }) => kind === 'set-switched');

/** Memory that the arrays of a delta take, bytes. */
export function byteSize(value: unknown): number {
  if (ArrayBuffer.isView(value)) return value.byteLength;
  if (Array.isArray(value)) return value.reduce((sum: number, item) => sum + byteSize(item), 0);
  if (typeof value === 'object' && value !== null) return byteSize(Object.values(value));
  return typeof value === 'string' ? 2 * value.length : 8;
}
