import type Joi from 'joi';
import { type Change, markChange } from '../../document/delta.ts';
import { type HemDocument, topologyOf } from '../../document/document.ts';
import { knownFaces, knownParts } from '../../document/known.ts';
import { PART_KINDS, type PartKind, partsBy } from '../../mesh/parts.ts';
import { about, choice, indices, optional, otherwise, record, type Taken } from '../../params.ts';
import { plural } from '../../plural.ts';
import { operation } from '../operation.ts';

const fields = record({
  how: about(
    'whether to hide these, show these, or show these and nothing else',
    otherwise(choice('hide', 'show', 'isolate'), 'hide'),
  ),
  by: about('of which kind the parts are', optional(choice<PartKind>(...PART_KINDS))),
  parts: about('parts, by number', optional(indices)),
  faces: about('faces, by number; with neither parts nor faces, everything', optional(indices)),
});
const params: typeof fields = (fields as Joi.ObjectSchema).and('by', 'parts').nand('parts', 'faces');

/** Hides faces or shows them again. What is hidden keeps its seams and UVs. */
export const hide = operation({
  name: 'hide',
  stage: 'intake',
  params,
  label: ({ how, by, parts, faces }) => {
    const what = by && parts ? plural(parts.length, by) : faces ? plural(faces.length, 'face') : 'everything';
    return `${how[0].toUpperCase()}${how.slice(1)} ${what}`;
  },
  doing: 'Hiding',
  nonBlocking: true,
  run(document, given) {
    const chosen = chosenFaces(document, given);
    const { how } = given;
    const changes: Change[] = [];
    if (how === 'isolate') {
      const inside = new Set(chosen);
      const others = Array.from(document.hidden.keys()).filter((f) => !inside.has(f));
      changes.push(markChange(document, 'hidden', others, 1));
    }
    changes.push(markChange(document, 'hidden', chosen, how === 'hide' ? 1 : 0));
    return { changes, notes: [] };
  },
});

function chosenFaces(document: HemDocument, { by, parts, faces }: Taken<typeof params>): readonly number[] {
  const { model } = document;
  if (faces) return knownFaces(model.mesh, faces);
  const all = Array.from(document.hidden.keys());
  if (!by || !parts) return all;
  const { facePart, names } = partsBy(by, model, topologyOf(model).connectivity);
  const wanted = knownParts(by, names, parts);
  return all.filter((f) => wanted.has(facePart[f]));
}
