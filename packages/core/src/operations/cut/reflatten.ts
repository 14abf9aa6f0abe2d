import type { HemDocument } from '../../document/document.ts';
import { shellsOf } from '../../document/document.ts';
import type { Request } from '../../document/request.ts';
import { RELAX_STEPS } from '../../relax/steps.ts';
import { facesOfShell, shellsWhere } from '../../surface/shells.ts';
import type { FollowUp } from '../operation.ts';

/** After a change of seams the shells that it touched lie flat again at once; those that had been relaxed are relaxed again. */
export const reflatten: readonly FollowUp[] = [
  (after) => (after.stale.includes(1) ? { operation: 'unfold', params: { shells: 'stale' } } : undefined),
  (after, now) => {
    const shells = relaxedBefore(after, now);
    return shells.length > 0 ? { operation: 'relax', params: { shells, steps: RELAX_STEPS } } : undefined;
  },
];

/** Relaxes also what was laid flat anew and not relaxed before: what a proposal promises of stretch is of relaxed shells. */
export const relaxOpened = (after: HemDocument, now: HemDocument): Request | undefined => {
  const shells = shellsOf(now);
  const opened = shellsWhere(shells, (f) => after.stale[f] === 1 && !now.stale[f] && !now.relaxed[f]);
  const names = opened.map((s) => facesOfShell(shells, s)[0]);
  return names.length > 0 ? { operation: 'relax', params: { shells: names, steps: RELAX_STEPS } } : undefined;
};

/** Shells that were relaxed before and are unfolded now, each by its first face. */
function relaxedBefore(after: HemDocument, now: HemDocument): number[] {
  const shells = shellsOf(now);
  const changed = shellsWhere(shells, (f) => after.stale[f] === 1 && after.relaxed[f] === 1);
  return changed.map((s) => facesOfShell(shells, s)[0]).filter((f) => !now.stale[f]);
}
