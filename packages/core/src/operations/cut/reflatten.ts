import type { HemDocument } from '../../document/document.ts';
import { shellsOf } from '../../document/document.ts';
import { facesOfShell, shellsWhere } from '../../surface/shells.ts';
import type { Follow } from '../operation.ts';

/** Steps of relaxing that follow a cut; a shell that needs more wants a relax of its own. */
export const RELAX_STEPS = 20;

/** After a change of seams the shells that it touched lie flat again at once; those that had been relaxed are relaxed again. */
export const reflatten: readonly Follow[] = [
  (after) => (after.stale.includes(1) ? { operation: 'unfold', params: { shells: 'stale' } } : undefined),
  (after, now) => {
    const shells = relaxedBefore(after, now);
    return shells.length > 0 ? { operation: 'relax', params: { shells, steps: RELAX_STEPS } } : undefined;
  },
];

/** Shells that were relaxed before and are unfolded now, each by its first face. */
function relaxedBefore(after: HemDocument, now: HemDocument): number[] {
  const shells = shellsOf(now);
  const changed = shellsWhere(shells, (f) => after.stale[f] === 1 && after.relaxed[f] === 1);
  return changed.map((s) => facesOfShell(shells, s)[0]).filter((f) => !now.stale[f]);
}
