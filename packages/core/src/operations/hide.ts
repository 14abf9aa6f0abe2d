import Joi from 'joi';
import { type HemDocument, topologyOf } from '../document/document.ts';
import { type Change, markChange, type Patch } from '../document/patch.ts';
import { PART_KINDS, type PartKind, partsBy } from '../mesh/parts.ts';
import { knownFaces, knownParts } from './known.ts';
import { type Operation, plural } from './operation.ts';
import { indices } from './schemas.ts';

export interface HideParams {
  /** Hide these, show these, or show these and nothing else. */
  readonly how: 'hide' | 'show' | 'isolate';
  /** Parts of one kind by number … */
  readonly by?: PartKind;
  readonly parts?: readonly number[];
  /** … or faces; with neither, everything. */
  readonly faces?: readonly number[];
}

/** Hides faces or shows them again. What is hidden keeps its seams and UVs. */
export const hide: Operation<HideParams> = {
  name: 'hide',
  schema: Joi.object({
    how: Joi.string().valid('hide', 'show', 'isolate').default('hide'),
    by: Joi.string().valid(...PART_KINDS),
    parts: indices.optional(),
    faces: indices.optional(),
  })
    .and('by', 'parts')
    .nand('parts', 'faces'),
  label: ({ how, by, parts, faces }) => {
    const what = by && parts ? plural(parts.length, by) : faces ? plural(faces.length, 'face') : 'everything';
    return `${how[0].toUpperCase()}${how.slice(1)} ${what}`;
  },
  run(document, params): Patch {
    const chosen = chosenFaces(document, params);
    const { how } = params;
    const changes: Change[] = [];
    if (how === 'isolate') {
      const inside = new Set(chosen);
      const others = Array.from(document.hidden.keys()).filter((f) => !inside.has(f));
      changes.push(markChange(document, 'hidden', others, 1));
    }
    changes.push(markChange(document, 'hidden', chosen, how === 'hide' ? 1 : 0));
    return { changes, notes: [] };
  },
};

function chosenFaces(document: HemDocument, { by, parts, faces }: HideParams): readonly number[] {
  const { model } = document;
  if (faces) return knownFaces(model.mesh, faces);
  const all = Array.from(document.hidden.keys());
  if (!by || !parts) return all;
  const { facePart, names } = partsBy(by, model, topologyOf(model).links);
  const wanted = knownParts(by, names, parts);
  return all.filter((f) => wanted.has(facePart[f]));
}
