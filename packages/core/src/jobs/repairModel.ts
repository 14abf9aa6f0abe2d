import { applyDelta, type Change, type Delta, modelChange, NO_CHANGE } from '../document/delta.ts';
import type { HemDocument } from '../document/document.ts';
import { patientOf } from '../document/patient.ts';
import { remeshed } from '../document/remesh.ts';
import { HemError } from '../errors.ts';
import { type Check, type CheckOptions, describeCount, type Finding, findingOf } from '../health/check.ts';
import { CHECKS, checkOf } from '../health/examine.ts';
import { heedStop } from '../progress.ts';
import type { Job } from './job.ts';

export interface RepairTask {
  readonly document: HemDocument;
  /** What is repaired; all that is safe when absent. */
  readonly kind?: string;
  /** These faces, as they were found, without looking again. */
  readonly faces?: readonly number[];
  readonly options: CheckOptions;
}

/** One repair may bring to light what another can repair; more rounds than this are never needed in practice. */
const MOST_ROUNDS = 4;

/** Repairs what checks find; the delta says in its notes what was done. */
export const repairModel: Job<'repair', RepairTask, Delta> = {
  name: 'repair',
  run({ document, kind, faces, options }, context) {
    if (kind === undefined) return allThatIsSafe(document, options, context);
    const check = checkOf(kind) as Check;
    const finding = faces ? findingOf({ faces }) : check.find(patientOf(document.model), options, context);
    if (!finding) throw new HemError('nothing-to-repair', `There are no ${check.thing[1]}.`);
    return {
      changes: [repaired(document, check, finding, options)],
      notes: [`${check.repair?.label}: ${describeCount(check, finding.count)}.`],
    };
  },
};

function allThatIsSafe(
  document: HemDocument,
  options: CheckOptions,
  context: Parameters<typeof repairModel.run>[1],
): Delta {
  const safe = CHECKS.filter(({ repair }) => repair?.safe);
  const changes: Change[] = [];
  const notes: string[] = [];
  let now = document;
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const before = now;
    for (const [i, check] of safe.entries()) {
      heedStop(context.signal);
      context.report({ fraction: i / safe.length });
      const finding = check.find(patientOf(now.model), options, context);
      if (!finding) continue;
      const change = repaired(now, check, finding, options);
      changes.push(change);
      now = applyDelta(now, { ...NO_CHANGE, changes: [change] });
      notes.push(`${check.repair?.label}: ${describeCount(check, finding.count)}.`);
    }
    if (now === before) break;
  }
  return { changes, notes: notes.length > 0 ? notes : ['There is nothing to repair that is safe.'] };
}

/** @throws HemError when nothing would be left */
function repaired(document: HemDocument, check: Check, finding: Finding, options: CheckOptions): Change {
  const edit = check.repair?.run(patientOf(document.model), finding, options);
  if (!edit) throw new HemError('no-repair', `There is no repair for ${check.thing[1]}.`);
  if ('model' in edit) return modelChange(document.model, edit.model);
  if (edit.faceSource.length === 0) {
    throw new HemError('nothing-left', 'Nothing would be left of the model, so it was left as it is.');
  }
  return remeshed(document, edit);
}
