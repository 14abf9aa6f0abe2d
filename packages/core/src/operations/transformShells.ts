import Joi from 'joi';
import { shellOf, shellUv } from '../document/document.ts';
import { type Patch, uvChange } from '../document/patch.ts';
import { transformUv, type UvMatrix } from '../surface/similarity.ts';
import { type Operation, plural } from './operation.ts';
import { indices } from './schemas.ts';
import { chosenShells } from './shellChoice.ts';

export interface TransformShellsParams {
  readonly shells: readonly number[];
  /** u' = a u + c v + e, v' = b u + d v + f. */
  readonly matrix: UvMatrix;
}

/** Moves, turns or scales shells on the texture. */
export const transformShells: Operation<TransformShellsParams> = {
  name: 'transform-shells',
  schema: Joi.object({ shells: indices, matrix: Joi.array().items(Joi.number()).length(6).required() }),
  label: ({ shells, matrix }) => `${verb(matrix)} ${plural(shells.length, 'shell')}`,
  run(document, { shells, matrix }): Patch {
    const uvOf = new Map<number, Float64Array>();
    for (const s of chosenShells(document, shells)) {
      const uv = shellUv(document, shellOf(document, s));
      if (uv) uvOf.set(s, transformUv(uv, matrix));
    }
    return { changes: uvOf.size > 0 ? [uvChange(document, uvOf)] : [], notes: [] };
  },
};

function verb([a, b, c, d]: UvMatrix): string {
  const determinant = a * d - b * c;
  if (determinant < 0) return 'Mirror';
  if (Math.abs(determinant - 1) > 1e-9) return 'Scale';
  return Math.abs(b) > 1e-9 || a < 0 ? 'Turn' : 'Move';
}
