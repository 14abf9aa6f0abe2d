import Joi from 'joi';
import type { Patch } from '../document/patch.ts';
import { type Operation, plural } from './operation.ts';
import { indices } from './schemas.ts';
import { changeSeams, knownEdges } from './seamChange.ts';

export interface SewParams {
  readonly edges: readonly number[];
}

/** Selected seams are no seams any more; shells on either side become one. */
export const sew: Operation<SewParams> = {
  name: 'sew',
  schema: Joi.object({ edges: indices }),
  label: ({ edges }) => `Sew ${plural(edges.length, 'edge')}`,
  run(document, { edges }): Patch {
    return changeSeams(document, knownEdges(document, edges), 0);
  },
};
