import { determinant } from '../mesh/affine.ts';
import type { Model } from '../mesh/model.ts';
import { type Check, type Finding, findingOf, type Repair } from './check.ts';

/** Part by which the three scales of a transform may differ before circles visibly unfold as ovals. */
const EVEN = 0.01;

const IDENTITY = Float64Array.of(1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1);

/** The points stand where the transform puts them already: only the file's own is let go. */
const applyTransforms: Repair = {
  label: 'Apply the transforms',
  safe: true,
  run({ model }, { faces }) {
    const hit = new Set([...faces].map((f) => model.faceObject[f]));
    const objectTransforms = model.objectTransforms?.map((m, object) => (hit.has(object) ? IDENTITY : m));
    return { model: { objectTransforms, altered: true } };
  },
};

/** Objects that the file mirrors. */
export const mirroredTransform: Check = {
  kind: 'mirrored-transform',
  when: 'a node’s matrix has a negative determinant',
  severity: 'spoils',
  thing: ['face with a mirrored transform', 'faces with a mirrored transform'],
  effect:
    'Here it is shown the right way out; once the transform is applied elsewhere it turns inside out, and lettering reads backwards.',
  find: ({ model }) => facesOfObjects(model, (m) => determinant(m) < 0),
  repair: applyTransforms,
};

/** Objects that the file scales unevenly. */
export const unevenScale: Check = {
  kind: 'uneven-scale',
  when: 'a node’s three scales differ by more than 1 %',
  severity: 'spoils',
  thing: ['face with an uneven scale', 'faces with an uneven scale'],
  effect:
    'Here it is measured as it stands; a program that unfolds it without the scale turns circles into ovals.',
  find: ({ model }) =>
    facesOfObjects(model, (m) => {
      const scales = columnLengths(m);
      return Math.max(...scales) > (1 + EVEN) * Math.min(...scales);
    }),
  repair: applyTransforms,
};

function facesOfObjects(model: Model, holds: (matrix: ArrayLike<number>) => boolean): Finding | undefined {
  const hit = model.objectTransforms?.map(holds) ?? [];
  if (!hit.includes(true)) return undefined;
  return findingOf({ faces: Array.from(model.faceObject.keys()).filter((f) => hit[model.faceObject[f]]) });
}

const columnLengths = (m: ArrayLike<number>): number[] =>
  [0, 4, 8].map((k) => Math.hypot(m[k], m[k + 1], m[k + 2]));
