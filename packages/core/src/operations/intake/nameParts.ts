import { modelChange } from '../../document/delta.ts';
import { knownParts } from '../../document/known.ts';
import type { Material } from '../../mesh/material.ts';
import type { Model } from '../../mesh/model.ts';
import { about, choice, indices, record, words } from '../../params.ts';
import { operation } from '../operation.ts';
import { losses } from './losses.ts';

/** What has names in a model; loose pieces have none. */
const NAMED = { object: 'objects', group: 'groups', material: 'materials' } as const;
const FACES = { object: 'faceObject', group: 'faceGroup', material: 'faceMaterial' } as const;
type Named = keyof typeof NAMED;

const named = (item: string | Material, name: string): string | Material =>
  typeof item === 'string' ? name : { ...item, name };

/** Gives a part another name, or joins several under one. */
export const nameParts = operation({
  name: 'name-parts',
  stage: 'intake',
  params: record({
    by: about('of which kind the parts are', choice<Named>('object', 'group', 'material')),
    parts: about('parts, by number; several become one', indices),
    name: about('what they are called from now on', words(200)),
  }),
  label: ({ by, parts, name }) =>
    parts.length === 1 ? `Rename ${by} to “${name}”` : `Join ${parts.length} ${by}s as “${name}”`,
  doing: 'Renaming',
  run(document, { by, parts, name }) {
    const { model } = document;
    const items: readonly (string | Material)[] = model[NAMED[by]];
    const [first, ...others] = [...knownParts(by, items, parts)].sort((a, b) => a - b);
    const gone = new Set(others);
    const to = new Int32Array(items.length);
    const kept: (string | Material)[] = [];
    items.forEach((old, i) => {
      to[i] = gone.has(i) ? to[first] : kept.length;
      if (!gone.has(i)) kept.push(i === first ? named(old, name) : old);
    });
    const list = model[FACES[by]];
    const faces = list.map((i) => (i < 0 ? i : to[i]));
    const fields: Partial<Omit<Model, 'mesh'>> = {
      [NAMED[by]]: kept,
      [FACES[by]]: faces,
      // Joined objects have no transform in common: theirs have been carried out, and are let go.
      ...(by === 'object' && others.length > 0 && { objectTransforms: undefined }),
      altered: true,
    };
    return { changes: [modelChange(model, fields)], notes: losses(document) };
  },
});
