import Joi from 'joi';
import { topologyOf } from '../document/document.ts';
import type { Patch } from '../document/patch.ts';
import { type Operation, plural } from './operation.ts';
import { indices } from './schemas.ts';
import { changeSeams, knownEdges } from './seamChange.ts';

export interface CutParams {
  readonly edges: readonly number[];
}

/** Selected edges become seams. Edges where the mesh ends anyway are left out. */
export const cut: Operation<CutParams> = {
  name: 'cut',
  schema: Joi.object({ edges: indices }),
  label: ({ edges }) => `Cut ${plural(edges.length, 'edge')}`,
  run(document, { edges }): Patch {
    const { joined } = topologyOf(document.model).links;
    return changeSeams(
      document,
      knownEdges(document, edges).filter((e) => joined[e]),
      1,
    );
  },
};
