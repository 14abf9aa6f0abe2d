import { plainDocument } from '../../document/document.ts';
import { knownFaces } from '../../document/known.ts';
import { HemError } from '../../errors.ts';
import { type Check, DEFAULT_OPTIONS } from '../../health/check.ts';
import { CHECKS, checkOf } from '../../health/examine.ts';
import { about, choice, indices, number, optional, otherwise, record } from '../../params.ts';
import { operation } from '../operation.ts';
import { losses } from './losses.ts';

/** Distance at which points count as one, as a part of the mean length of border edges. */
export const tolerance = about(
  'how far apart points may lie that are one',
  otherwise(number(1e-9, 0.5), DEFAULT_OPTIONS.tolerance),
  'parts of the length of edges',
);

const REPAIRABLE = CHECKS.filter(({ repair }) => repair).map(({ kind }) => kind);

/** Repairs what one check of the health check finds. */
export const repair = operation({
  name: 'repair',
  stage: 'intake',
  params: record({
    kind: about('what is repaired', choice(...REPAIRABLE)),
    faces: about('these faces, as they were found, without looking again', optional(indices)),
    tolerance,
  }),
  label: ({ kind }) => {
    const { repair: cure, thing } = checkOf(kind) as Check;
    return `${cure?.label} (${thing[1]})`;
  },
  doing: 'Repairing',
  async run(document, { kind, faces, tolerance: distance }, context) {
    const check = checkOf(kind) as Check;
    if (faces && !check.repair?.ofFaces) {
      throw new HemError('wrong-parameters', `${check.thing[1]}: these are repaired all together.`);
    }
    if (faces) knownFaces(document.model.mesh, faces);
    const task = { document: plainDocument(document), kind, faces, options: { tolerance: distance } };
    const { changes, notes } = await context.jobs.run('repair', task, context);
    return { changes, notes: [...notes, ...losses(document)] };
  },
});
