import { patientOf } from '../document/patient.ts';
import type { CheckOptions, Finding } from '../health/check.ts';
import { examine } from '../health/examine.ts';
import { type ModelFigures, modelFigures } from '../health/modelFigures.ts';
import type { Model } from '../mesh/model.ts';
import type { Job } from './job.ts';

/** What checks find wrong with a model, and what it is made of. */
export interface Examination {
  readonly findings: readonly (Finding & { readonly kind: string })[];
  readonly figures: ModelFigures;
}

export const examineModel: Job<
  'examine',
  { readonly model: Model; readonly options: CheckOptions },
  Examination
> = {
  name: 'examine',
  run({ model, options }, context) {
    const patient = patientOf(model);
    const findings = examine(patient, context, options).map(({ check, finding }) => ({
      ...finding,
      kind: check.kind,
    }));
    return { findings, figures: modelFigures(patient) };
  },
};
