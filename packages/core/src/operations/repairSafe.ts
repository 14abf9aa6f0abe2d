import Joi from 'joi';
import { type Patch, remeshChange } from '../document/patch.ts';
import { counted } from '../health/check.ts';
import { CHECKS } from '../health/examine.ts';
import type { Operation } from './operation.ts';
import { patientOf } from './patient.ts';
import { losses, repaired, toleranceSchema } from './repair.ts';

export interface RepairSafeParams {
  readonly tolerance: number;
}

/** One repair may bring to light what another can repair; more rounds than this are never needed in practice. */
const MOST_ROUNDS = 4;

/** Repairs all that can be repaired without changing a shape, and says what it did. */
export const repairSafe: Operation<RepairSafeParams> = {
  name: 'repair-safe',
  schema: Joi.object({ tolerance: toleranceSchema }),
  label: () => 'Repair all that is safe',
  run(document, options, context): Patch {
    const safe = CHECKS.filter(({ repair }) => repair?.safe);
    const done: string[] = [];
    let now = document;
    for (let round = 0; round < MOST_ROUNDS; round++) {
      const before = now;
      for (const check of safe) {
        const finding = check.find(patientOf(now), options, context);
        if (!finding) continue;
        now = repaired(now, check, finding, options);
        done.push(`${check.repair?.label}: ${counted(check, finding.count)}.`);
      }
      if (now === before) break;
    }
    if (done.length === 0) return { changes: [], notes: ['There is nothing to repair that is safe.'] };
    return { changes: [remeshChange(document, now)], notes: [...done, ...losses(document)] };
  },
};
