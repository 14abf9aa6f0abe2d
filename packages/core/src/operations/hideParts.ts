import Joi from 'joi';
import { topologyOf } from '../document/document.ts';
import { markChange, type Patch } from '../document/patch.ts';
import { HemError } from '../errors.ts';
import { type Operation, plural } from './operation.ts';
import { indices } from './schemas.ts';

export interface HidePartsParams {
  readonly parts: readonly number[];
  readonly hidden: boolean;
}

/** Hides parts of the model, or shows them again. Hidden parts keep their seams and UVs. */
export const hideParts: Operation<HidePartsParams> = {
  name: 'hide-parts',
  schema: Joi.object({ parts: indices, hidden: Joi.boolean().default(true) }),
  label: ({ parts, hidden }) => `${hidden ? 'Hide' : 'Show'} ${plural(parts.length, 'part')}`,
  run(document, { parts, hidden }): Patch {
    const { names } = topologyOf(document.model).parts;
    const unknown = parts.filter((p) => p >= names.length);
    if (unknown.length > 0) {
      throw new HemError(
        'no-such-part',
        `There is no part ${unknown[0] + 1}: the model has ${names.length}.`,
        unknown,
      );
    }
    return { changes: [markChange(document, 'hiddenParts', parts, hidden ? 1 : 0)], notes: [] };
  },
};
