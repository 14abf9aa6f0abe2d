import { patientOf } from '../document/patient.ts';
import type { CheckOptions } from '../health/check.ts';
import { checkOf } from '../health/examine.ts';
import type { Model } from '../mesh/model.ts';
import type { Job } from './job.ts';

/** How many one check of the health check counts. */
export const countFinding: Job<
  'count-finding',
  { readonly model: Model; readonly kind: string; readonly options: CheckOptions },
  number
> = {
  name: 'count-finding',
  run: ({ model, kind, options }, context) =>
    checkOf(kind)?.find(patientOf(model), options, context)?.count ?? 0,
};
