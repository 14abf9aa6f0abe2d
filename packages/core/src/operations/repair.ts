import Joi from 'joi';
import type { HemDocument } from '../document/document.ts';
import { type Patch, remeshChange } from '../document/patch.ts';
import { remeshed, withModelFields } from '../document/remesh.ts';
import { HemError } from '../errors.ts';
import {
  type Check,
  type CheckOptions,
  counted,
  DEFAULT_OPTIONS,
  type Finding,
  found,
} from '../health/check.ts';
import { CHECKS, checkOf } from '../health/examine.ts';
import { knownFaces } from './known.ts';
import type { Operation } from './operation.ts';
import { patientOf } from './patient.ts';
import { indices } from './schemas.ts';

export interface RepairParams {
  readonly kind: string;
  /** These faces, as they were found, without looking again. */
  readonly faces?: readonly number[];
  readonly tolerance: number;
}

/** Distance at which points count as one, as a part of the mean length of border edges. */
export const toleranceSchema = Joi.number().min(1e-9).max(0.5).default(DEFAULT_OPTIONS.tolerance);

const REPAIRABLE = CHECKS.filter(({ repair }) => repair).map(({ kind }) => kind);

/** Repairs what one check of the health check finds. */
export const repair: Operation<RepairParams> = {
  name: 'repair',
  schema: Joi.object({
    kind: Joi.string()
      .valid(...REPAIRABLE)
      .required(),
    faces: indices.optional(),
    tolerance: toleranceSchema,
  }),
  label: ({ kind }) => {
    const { repair: cure, thing } = checkOf(kind) as Check;
    return `${cure?.label} (${thing[1]})`;
  },
  run(document, { kind, faces, tolerance }, context): Patch {
    const check = checkOf(kind) as Check;
    const options = { tolerance };
    if (faces && !check.repair?.ofFaces) {
      throw new HemError('wrong-parameters', `${check.thing[1]}: these are repaired all together.`);
    }
    const finding = faces
      ? found({ faces: knownFaces(document.model.mesh, faces) })
      : check.find(patientOf(document), options, context);
    if (!finding) {
      throw new HemError('nothing-to-repair', `There are no ${check.thing[1]}.`);
    }
    const after = repaired(document, check, finding, options);
    return {
      changes: [remeshChange(document, after)],
      notes: [`${check.repair?.label}: ${counted(check, finding.count)}.`, ...losses(document)],
    };
  },
};

/** @throws HemError when nothing would be left */
export function repaired(
  document: HemDocument,
  check: Check,
  finding: Finding,
  options: CheckOptions,
): HemDocument {
  const edit = check.repair?.run(patientOf(document), finding, options);
  if (!edit) throw new HemError('no-repair', `There is no repair for ${check.thing[1]}.`);
  if ('model' in edit) return withModelFields(document, edit.model);
  if (edit.faceSource.length === 0) {
    throw new HemError('nothing-left', 'Nothing would be left of the model, so it was left as it is.');
  }
  return remeshed(document, edit);
}

/** What an export can no longer do once the mesh has changed. */
export function losses({ model }: HemDocument): string[] {
  return model.source.format === 'none'
    ? []
    : ['Exports are composed anew from now on: comments, normals and textures of the file are not in them.'];
}
