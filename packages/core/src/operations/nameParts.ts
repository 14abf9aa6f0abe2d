import Joi from 'joi';
import { type Patch, remeshChange } from '../document/patch.ts';
import { withModelFields } from '../document/remesh.ts';
import type { Model } from '../mesh/model.ts';
import { knownParts } from './known.ts';
import type { Operation } from './operation.ts';
import { losses } from './repair.ts';
import { indices } from './schemas.ts';

/** What has names in a model; loose pieces have none. */
const NAMED = { object: 'objects', group: 'groups', material: 'materials' } as const;
const FACES = { object: 'faceObject', group: 'faceGroup', material: 'faceMaterial' } as const;
type Named = keyof typeof NAMED;

export interface NamePartsParams {
  readonly by: Named;
  /** By number; several become one. */
  readonly parts: readonly number[];
  readonly name: string;
}

/** Gives a part another name, or joins several under one. */
export const nameParts: Operation<NamePartsParams> = {
  name: 'name-parts',
  schema: Joi.object({
    by: Joi.string()
      .valid(...Object.keys(NAMED))
      .required(),
    parts: indices,
    name: Joi.string().trim().max(200).required(),
  }),
  label: ({ by, parts, name }) =>
    parts.length === 1 ? `Rename ${by} to “${name}”` : `Join ${parts.length} ${by}s as “${name}”`,
  run(document, { by, parts, name }): Patch {
    const { model } = document;
    const names = model[NAMED[by]];
    const [first, ...others] = [...knownParts(by, names, parts)].sort((a, b) => a - b);
    const gone = new Set(others);
    const to = new Int32Array(names.length);
    const kept: string[] = [];
    names.forEach((old, i) => {
      to[i] = gone.has(i) ? to[first] : kept.length;
      if (!gone.has(i)) kept.push(i === first ? name : old);
    });
    const list = model[FACES[by]];
    const faces = list.map((i) => (i < 0 ? i : to[i]));
    const fields: Partial<Omit<Model, 'mesh'>> = {
      [NAMED[by]]: kept,
      [FACES[by]]: faces,
      // Joined objects have no transform in common: theirs have been carried out, and are let go.
      ...(by === 'object' && others.length > 0 && { objectTransforms: undefined }),
      ...(by === 'material' && {
        materialColours: model.materialColours?.filter((_, i) => !gone.has(Math.floor(i / 3))),
      }),
      source: { format: 'none' },
    };
    const change = remeshChange(document, withModelFields(document, fields));
    return { changes: [change], notes: losses(document) };
  },
};
