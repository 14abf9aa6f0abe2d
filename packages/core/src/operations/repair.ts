import Joi from 'joi';
import type { HemDocument } from '../document/document.ts';
import { type Patch, remeshChange } from '../document/patch.ts';
import { remeshed, withModelFields } from '../document/remesh.ts';
import { HemError } from '../errors.ts';
import { type Check, type CheckOptions, counted, DEFAULT_OPTIONS, type Finding } from '../health/check.ts';
import { CHECKS, checkOf } from '../health/examine.ts';
import type { Operation } from './operation.ts';
import { patientOf } from './patient.ts';

export interface RepairParams {
  readonly kind: string;
  /** Only these of the faces found. */
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
    faces: Joi.array().items(Joi.number().integer().min(0)).min(1),
    tolerance: toleranceSchema,
  }),
  label: ({ kind }) => {
    const { repair: cure, thing } = checkOf(kind) as Check;
    return `${cure?.label} (${thing[1]})`;
  },
  run(document, { kind, faces, tolerance }, context): Patch {
    const check = checkOf(kind) as Check;
    const options = { tolerance };
    const whole = check.find(patientOf(document), options, context);
    const finding = whole && faces ? onlyFaces(whole, new Set(faces)) : whole;
    if (!finding || finding.count === 0) {
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

function onlyFaces(finding: Finding, wanted: ReadonlySet<number>): Finding {
  const faces = finding.faces.filter((f) => wanted.has(f));
  return { ...finding, faces, count: faces.length };
}
