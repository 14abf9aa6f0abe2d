import Joi from 'joi';
import { type HemDocument, markCounts, withCurrent } from '../document/document.ts';
import {
  MARK_FIELDS,
  MARKS,
  type MarkField,
  markArrayOf,
  SET_MARK_FIELDS,
  SET_VALUE_FIELDS,
  type ValueField,
} from '../document/fields.ts';
import { limitsShape } from '../document/limits.ts';
import { WEIGHTS } from '../document/patchWeights.ts';
import { IMAGE_USES } from '../mesh/material.ts';
import { faceCount, type Mesh } from '../mesh/mesh.ts';
import type { Model, UvSet } from '../mesh/model.ts';
import { tilesShape } from '../surface/tiles.ts';

const array = (kind: new (length: number) => object) => Joi.object().instance(kind);
const doubles = array(Float64Array).required();
const numbers = array(Uint32Array).required();
const signed = array(Int32Array).required();
const bytes = array(Uint8Array).required();
const texts = Joi.array().items(Joi.string().allow('')).required();
const uvSets = Joi.array().items(Joi.object({ name: Joi.string().allow('').required(), uv: doubles }));
const marksShape = (fields: readonly MarkField[]) =>
  Object.fromEntries(fields.map((field) => [field, array(markArrayOf(field)).required()]));

const count = Joi.number().integer().min(0).required();
/** What each value of a document may be. */
export const VALUE_SHAPES: Readonly<Record<ValueField, Joi.Schema>> = {
  currentUv: count,
  setsMade: count.min(1),
  placed: count,
  upAxis: count,
  front: count.max(3),
  patchNames: texts.max(MARKS.patches.limit - 1),
  patchWeights: Joi.array()
    .items(Joi.number().min(WEIGHTS.least).max(WEIGHTS.most))
    .max(MARKS.patches.limit - 1)
    .required(),
  limits: limitsShape,
  tiles: tilesShape,
};

const setValues = Object.fromEntries(SET_VALUE_FIELDS.map((field) => [field, VALUE_SHAPES[field]]));
const documentSet = Joi.object({
  id: count,
  name: Joi.string().allow('').required(),
  uv: doubles,
  away: Joi.object({ ...marksShape(SET_MARK_FIELDS), ...setValues }),
});

const source = Joi.alternatives(
  Joi.object({ format: Joi.valid('none').required() }),
  Joi.object({
    format: Joi.valid('obj').required(),
    bytes,
    libraries: Joi.array().items(Joi.object({ name: Joi.string().allow('').required(), bytes })),
  }),
  Joi.object({ format: Joi.valid('ply').required(), bytes }),
  Joi.object({ format: Joi.valid('glb').required(), bytes, cornerSource: numbers, facePrimitive: numbers }),
);

const material = Joi.object({
  name: Joi.string().allow('').required(),
  colour: Joi.array().items(Joi.number()).length(3),
  images: Joi.object(Object.fromEntries(IMAGE_USES.map((use) => [use, count.optional()]))),
  inFile: count.optional(),
});
const image = Joi.object({
  name: Joi.string().allow('').required(),
  mimeType: Joi.string().allow('').required(),
  bytes: bytes.optional(),
});

const shape = Joi.object({
  model: Joi.object({
    name: Joi.string().allow('').required(),
    mesh: Joi.object({ positions: doubles, faceStart: numbers, cornerVertex: numbers }).required(),
    faceObject: numbers,
    objects: texts,
    faceGroup: numbers,
    groups: texts,
    faceMaterial: signed,
    materials: Joi.array().items(material).required(),
    images: Joi.array().items(image).required(),
    faceSmoothing: signed,
    objectTransforms: Joi.array().items(doubles),
    faceLost: array(Uint8Array),
    uvSets: uvSets.required(),
    source: source.required(),
    altered: Joi.boolean(),
  }).required(),
  uvSets: Joi.array().items(documentSet).min(1).required(),
  ...marksShape(MARK_FIELDS),
  ...VALUE_SHAPES,
}).required();

/**
 * What is wrong with a document that was read back, if anything: the shape of it, and then every count and range, so that whatever
 * is done with it later stays inside its arrays.
 *
 * @returns a part of a sentence, “a face names a point that is not there”; undefined when the document is sound
 */
export function findFault(candidate: unknown): string | undefined {
  const { error } = shape.validate(candidate, { convert: false });
  if (error) return `${error.details[0].path.join('.') || 'the document'} is not what it should be`;
  const document = candidate as HemDocument;
  return (
    findMeshFault(document.model.mesh) ??
    unsoundNames(document.model) ??
    unsoundUv([...document.uvSets, ...document.model.uvSets], document.model.mesh) ??
    unsoundSets(document) ??
    document.uvSets.map(({ id }) => unsoundMarks(withCurrent(document, id))).find(Boolean)
  );
}

export function findMeshFault({ positions, faceStart, cornerVertex }: Mesh): string | undefined {
  if (positions.length % 3 !== 0) return 'a point has no place';
  for (let i = 0; i < positions.length; i++)
    if (!Number.isFinite(positions[i])) return 'a point has no place';
  if (faceStart.length === 0 || faceStart[0] !== 0) return 'the list of faces does not begin';
  for (let f = 0; f + 1 < faceStart.length; f++)
    if (!(faceStart[f + 1] >= faceStart[f] + 3)) return 'a face has fewer than three corners';
  if (faceStart[faceStart.length - 1] !== cornerVertex.length) return 'faces and corners do not add up';
  return below(cornerVertex, positions.length / 3) ? undefined : 'a face names a point that is not there';
}

function unsoundNames(model: Model): string | undefined {
  const faces = faceCount(model.mesh);
  const { faceObject, objects, faceGroup, groups, faceMaterial, materials, faceSmoothing } = model;
  const { faceLost, images, objectTransforms, source } = model;
  const perFace = [faceObject, faceGroup, faceMaterial, faceSmoothing, faceLost ?? faceObject];
  if (perFace.some((list) => list.length !== faces)) return 'faces and what is known of them do not add up';
  if (!below(faceObject, objects.length)) return 'a face is of an object that is not there';
  if (!below(faceGroup, groups.length)) return 'a face is of a group that is not there';
  if (!below(faceMaterial, materials.length)) return 'a face is of a material that is not there';
  if (faceMaterial.some((m) => m < -1)) return 'a face is of a material that is not there';
  const places = materials.flatMap(({ images = {} }) => Object.values(images));
  if (!below(places, images.length)) return 'a material is of an image that is not there';
  if (objectTransforms?.some((matrix) => matrix.length !== 16)) return 'an object is not placed';
  if (objectTransforms && objectTransforms.length !== objects.length) return 'an object is not placed';
  if (source.format !== 'glb' || model.altered) return undefined;
  const { cornerSource, facePrimitive } = source;
  const fits = cornerSource.length === model.mesh.cornerVertex.length && facePrimitive.length === faces;
  return fits ? undefined : 'the model and its file do not belong together';
}

function unsoundUv(sets: readonly UvSet[], { cornerVertex }: Mesh): string | undefined {
  return sets.every(({ uv }) => uv.length === 2 * cornerVertex.length)
    ? undefined
    : 'corners and UVs do not add up';
}

/** Every set has an id of its own, and one of them is current: that one alone has nothing put away. */
function unsoundSets({ uvSets, currentUv, setsMade }: HemDocument): string | undefined {
  const ids = uvSets.map(({ id }) => id);
  if (new Set(ids).size < ids.length || ids.some((id) => id >= setsMade))
    return 'its UV sets are not told apart';
  return uvSets.every(({ id, away }) => (id === currentUv) === (away === undefined)) &&
    ids.includes(currentUv)
    ? undefined
    : 'its UV set is not there';
}

function unsoundMarks(document: HemDocument): string | undefined {
  const counts = markCounts(document.model);
  for (const per of ['face', 'corner', 'edge'] as const) {
    const own = MARK_FIELDS.filter((field) => MARKS[field].per === per);
    if (own.some((field) => document[field].length !== counts[per])) return `${per}s and marks do not add up`;
  }
  if (MARK_FIELDS.some((field) => !below(document[field], MARKS[field].limit)))
    return 'a mark is neither set nor unset';
  if (!below(document.patches, document.patchNames.length + 1))
    return 'a face is of a patch that is not there';
  return undefined;
}

function below(list: ArrayLike<number>, limit: number): boolean {
  for (let i = 0; i < list.length; i++) if (list[i] >= limit) return false;
  return true;
}
