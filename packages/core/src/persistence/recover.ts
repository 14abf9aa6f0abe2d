import { type HemDocument, openDocument } from '../document/document.ts';
import { MARK_FIELDS, VALUE_FIELDS } from '../document/fields.ts';
import { modelFromMesh } from '../mesh/model.ts';
import { findFault, findMeshFault } from './validateDocument.ts';

type Loose = Record<string, unknown>;

/**
 * What is whole of a damaged document: its mesh, and with it every field that is sound by itself; the others are as on a freshly
 * opened model.
 *
 * @returns undefined when the mesh itself is damaged
 */
export function recoverDocument(candidate: unknown): HemDocument | undefined {
  const kept = (candidate ?? {}) as Loose;
  const model = (kept.model ?? {}) as Loose;
  const mesh = (model.mesh ?? {}) as HemDocument['model']['mesh'];
  const arrays =
    mesh.positions instanceof Float64Array &&
    mesh.faceStart instanceof Uint32Array &&
    mesh.cornerVertex instanceof Uint32Array;
  if (!arrays || findMeshFault(mesh)) return undefined;
  const name = typeof model.name === 'string' ? model.name : 'Model';
  let document = openDocument({ ...modelFromMesh(name, mesh), altered: true }, { keepUvs: false });
  const take = (next: unknown): void => {
    if (!findFault(next)) document = next as HemDocument;
  };
  for (const fields of MODEL_FIELDS) {
    const some = Object.fromEntries(fields.map((field) => [field, model[field]]));
    take({ ...document, model: { ...document.model, ...some } });
  }
  for (const fields of [SET_FIELDS, ...[...MARK_FIELDS, ...VALUE_FIELDS].map((field) => [field])])
    take({ ...document, ...Object.fromEntries(fields.map((field) => [field, kept[field]])) });
  return document;
}

/** Fields that tell which UV sets there are. */
const SET_FIELDS = ['uvSets', 'currentUv', 'setsMade'] as const;

/** Fields of a model that only make sense together. */
const MODEL_FIELDS = [
  ['faceObject', 'objects', 'objectTransforms'],
  ['faceGroup', 'groups'],
  ['faceMaterial', 'materials', 'images'],
  ['faceSmoothing'],
  ['faceLost'],
  ['uvSets'],
  // Only the untouched file and its model can be repeated.
  ['source', 'altered'],
] as const;
