import Joi from 'joi';
import type { ArrayDelta, Runs } from '../document/arrayDelta.ts';
import { applyDelta, type Change, type Delta, inverse, type MarksChange } from '../document/delta.ts';
import type { DocumentSet, HemDocument } from '../document/document.ts';
import {
  MARK_FIELDS,
  MARKS,
  type MarkArray,
  type MarkField,
  markArrayOf,
  SET_MARK_FIELDS,
  VALUE_FIELDS,
} from '../document/fields.ts';
import type { Act } from '../document/history.ts';
import { meshAfter, type Remesh } from '../document/remesh.ts';
import { type Places, startsFrom, type UvChange } from '../document/uvChange.ts';
import { HemError } from '../errors.ts';
import { cornerCount, faceCount, vertexCount } from '../mesh/mesh.ts';
import { FACE_FIELDS } from '../mesh/model.ts';
import { findFault, findMeshFault, VALUE_SHAPES } from './validateDocument.ts';

/** An object with all of these and nothing else. */
const whole = (keys: Record<string, Joi.Schema>) => Joi.object(keys).options({ presence: 'required' });
const array = (kind: new (length: number) => object) => Joi.object().instance(kind);
const list = (schema: Joi.Schema) => Joi.array().items(schema.optional());
const doubles = array(Float64Array);
const numbers = array(Uint32Array);
const bytes = array(Uint8Array);
const marks = Joi.alternatives(bytes, array(Uint16Array));
const count = Joi.number().integer().min(0);
const places = whole({ at: numbers, before: doubles, after: doubles });
const runs = whole({ before: count, after: count, kept: numbers });
const arrayDelta = (values: Joi.Schema) =>
  whole({ gone: values, fresh: values, at: numbers, before: values, after: values });
/** A value of a document; whether it is one of its field is seen once it is put in. */
const plain = Joi.alternatives(...Object.values(VALUE_SHAPES));
const some = Joi.object().unknown(true);
const perField = (fields: readonly string[], values: Joi.Schema) =>
  Joi.object(Object.fromEntries(fields.map((field) => [field, arrayDelta(values).optional()])));

const CHANGES: Record<Change['kind'], Record<string, Joi.Schema>> = {
  marks: { field: Joi.valid(...MARK_FIELDS), index: numbers, before: marks, after: marks },
  uv: { set: count, vertices: places, corners: places },
  'set-added': { at: count, set: some },
  'set-removed': { at: count, set: some },
  'set-renamed': { set: count, before: Joi.string().allow(''), after: Joi.string().allow('') },
  'set-switched': { before: count, after: count },
  value: { field: Joi.valid(...VALUE_FIELDS), before: plain, after: plain },
  model: { before: some, after: some, perFace: perField(FACE_FIELDS, Joi.object()) },
  remesh: {
    faces: runs,
    corners: runs,
    vertices: runs,
    positions: arrayDelta(doubles),
    sizes: arrayDelta(numbers),
    cornerVertex: arrayDelta(numbers),
    cornerSeams: arrayDelta(bytes),
    uv: list(arrayDelta(doubles)),
    fileUv: list(arrayDelta(doubles)),
    marks: perField(MARK_FIELDS, marks),
    away: list(whole({ cornerSeams: arrayDelta(bytes), marks: perField(SET_MARK_FIELDS, marks) })).optional(),
    perFace: perField(FACE_FIELDS, Joi.object()),
    before: some,
    after: some,
  },
  replacement: { before: some, after: some },
};

const shapes = Object.entries(CHANGES).map(([kind, keys]) => whole({ kind: Joi.valid(kind), ...keys }));

const deltaShape = whole({
  changes: list(Joi.alternatives(...shapes)),
  notes: list(Joi.string().allow('')),
}).required();

const actShape = whole({
  operation: Joi.string(),
  params: Joi.any().optional(),
  label: Joi.string().allow(''),
  group: Joi.number().integer(),
}).unknown(true);

const unfit = () => new HemError('damaged', 'What an act changed is damaged, or does not fit the model.');

/** @throws HemError unless it has the shape of a delta, either way */
export function validateDelta(candidate: unknown): Delta {
  if (deltaShape.validate(candidate, { convert: false }).error) throw unfit();
  try {
    // What is there and undefined counts as absent above, and not here.
    inverse(candidate as Delta);
  } catch {
    throw unfit();
  }
  return candidate as Delta;
}

/**
 * An act without anything kept beside it.
 *
 * @throws HemError unless it has the shape of an act
 */
export function validateAct({ operation, params, label, group }: Act): Act {
  const act = { operation, params, label, group };
  if (!isValidAct(act)) throw unfit();
  return act;
}

export const isValidAct = (candidate: unknown): boolean =>
  !actShape.validate(candidate, { convert: false }).error;

/**
 * Applies a delta that was read back. It must fit: what it says was there before has to be there, and what it leads to has to
 * be sound.
 *
 * @throws HemError when it does not; the document is as it was
 */
export function applyKept(document: HemDocument, delta: Delta): HemDocument {
  try {
    return delta.changes.reduce(applyChange, document);
  } catch {
    throw unfit();
  }
}

function applyChange(document: HemDocument, change: Change): HemDocument {
  if (!fits(document, change)) throw unfit();
  const next = applyDelta(document, { changes: [change], notes: [] });
  if (change.kind !== 'marks' && change.kind !== 'uv' && findFault(next)) throw unfit();
  return next;
}

function fits(document: HemDocument, change: Change): boolean {
  switch (change.kind) {
    case 'marks':
      return marksFit(document[change.field], change, MARKS[change.field].limit);
    case 'uv':
      return uvFits(document, change);
    case 'value':
      return sameValue(document[change.field], change.before);
    case 'set-added':
      return change.at <= document.uvSets.length;
    case 'set-removed':
      return isSameSet(document.uvSets[change.at], change.set);
    case 'set-renamed':
      return document.uvSets.find(({ id }) => id === change.set)?.name === change.before;
    case 'set-switched':
      return document.currentUv === change.before && document.uvSets.some(({ id }) => id === change.after);
    case 'model':
      return Object.values(change.perFace).every((each) =>
        deltaFits(each, { before: faceCount(document.model.mesh), after: faceCount(document.model.mesh) }, 1),
      );
    case 'remesh':
      return remeshFits(document, change);
    case 'replacement':
      return change.before.seams?.every((mark, e) => mark === document.seams[e]) ?? false;
  }
}

const sameValue = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);

const marksFit = (marks: MarkArray, { index, before, after }: MarksChange, limit: number): boolean =>
  isAlike(marks, before) &&
  isAlike(marks, after) &&
  before.length === index.length &&
  after.length === index.length &&
  index.every((at, i) => at < marks.length && marks[at] === before[i] && after[i] < limit);

const isSameSet = (own: DocumentSet | undefined, kept: DocumentSet): boolean =>
  own?.id === kept.id &&
  own.away !== undefined &&
  kept.uv instanceof Float64Array &&
  kept.uv.length === own.uv.length &&
  own.uv.every((x, i) => Object.is(x, kept.uv[i]));

function uvFits({ uvSets, model: { mesh } }: HemDocument, change: UvChange): boolean {
  const set = uvSets.find(({ id }) => id === change.set);
  if (!set) return false;
  const inside = ({ at, before, after }: Places, limit: number) =>
    before.length === 2 * at.length && after.length === 2 * at.length && at.every((i) => i < limit);
  if (!inside(change.vertices, vertexCount(mesh)) || !inside(change.corners, cornerCount(mesh))) return false;
  return startsFrom(mesh, set.uv, change);
}

/** Whether marks are kept in the same kind of array. */
const isAlike = (a: MarkArray, b: MarkArray): boolean => a.constructor === b.constructor;

function remeshFits(document: HemDocument, remesh: Remesh): boolean {
  const { mesh, uvSets } = document.model;
  const { faces, corners, vertices } = remesh;
  return (
    runsFit(faces, faceCount(mesh)) &&
    runsFit(corners, cornerCount(mesh)) &&
    runsFit(vertices, vertexCount(mesh)) &&
    remesh.uv.length === document.uvSets.length &&
    remesh.fileUv.length === uvSets.length &&
    deltaFits(remesh.positions, vertices, 3) &&
    [remesh.sizes, ...Object.values(remesh.perFace)].every((each) => deltaFits(each, faces, 1)) &&
    marksFitRemesh(remesh.marks, faces, corners) &&
    [remesh.cornerVertex, remesh.cornerSeams].every((each) => deltaFits(each, corners, 1)) &&
    (remesh.away ?? []).every((set) => awayFits(set, faces, corners)) &&
    (remesh.away ?? []).length <= document.uvSets.length - 1 &&
    [...remesh.uv, ...remesh.fileUv].every((each) => deltaFits(each, corners, 2)) &&
    // Looked at before anything is made of it: how edges join cannot be worked out on any mesh.
    !findMeshFault(meshAfter(document.model, remesh))
  );
}

const awayFits = (
  { cornerSeams, marks }: NonNullable<Remesh['away']>[number],
  faces: Runs,
  corners: Runs,
): boolean => deltaFits(cornerSeams, corners, 1) && marksFitRemesh(marks, faces, corners);

const marksFitRemesh = (marks: Remesh['marks'], faces: Runs, corners: Runs): boolean =>
  Object.entries(marks).every(
    ([field, each]) =>
      [each.gone, each.fresh, each.before, each.after].every(
        (list) => list instanceof markArrayOf(field as MarkField),
      ) && deltaFits(each, MARKS[field as MarkField].per === 'face' ? faces : corners, 1),
  );

/** Whether runs rise on both sides and stay inside. */
function runsFit({ before, after, kept }: Runs, count: number): boolean {
  if (before !== count || kept.length % 3 !== 0) return false;
  let [b, a] = [0, 0];
  for (let r = 0; r < kept.length; r += 3) {
    if (kept[r] < b || kept[r + 1] < a) return false;
    b = kept[r] + kept[r + 2];
    a = kept[r + 1] + kept[r + 2];
  }
  return b <= before && a <= after;
}

/** Whether a delta brings as many values as its runs leave open: then nothing is made that is larger than what was kept. */
function deltaFits(
  { gone, fresh, at, before, after }: ArrayDelta,
  { before: from, after: to, kept }: Pick<Runs, 'before' | 'after'> & Partial<Runs>,
  width: number,
): boolean {
  let stay = kept ? 0 : from;
  for (let r = 2; kept && r < kept.length; r += 3) stay += kept[r];
  return (
    gone.length === width * (from - stay) &&
    fresh.length === width * (to - stay) &&
    before.length === at.length &&
    after.length === at.length &&
    at.every((i, k) => i < width * stay && (k === 0 || i > at[k - 1]))
  );
}
