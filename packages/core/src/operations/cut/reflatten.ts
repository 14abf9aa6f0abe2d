import type { HemDocument } from '../../document/document.ts';
import { shellsOf } from '../../document/document.ts';
import type { Request } from '../../document/request.ts';
import { RELAX_STEPS } from '../../relax/steps.ts';
import { facesOfShell, shellsWhere } from '../../surface/shells.ts';
import type { FollowUp } from '../operation.ts';

/**
 * After a change of seams the shells that it touched lie flat again at once; those that had been relaxed are relaxed again.
 *
 * @param relaxesAll  whether the others are relaxed as well: what a proposal promises of stretch is of relaxed shells
 */
export const reflattenWith = <Out>(relaxesAll: (params: Out) => boolean): readonly FollowUp<Out>[] => [
  (after, _, params) => unfoldStale(after, relaxesAll(params) ? 'all' : 'again'),
  (after, now, params) => relaxAnew(after, now, relaxesAll(params)),
];

export const reflatten: readonly FollowUp[] = reflattenWith(() => false);

const unfoldStale = (after: HemDocument, relaxedNext: 'again' | 'all'): Request | undefined =>
  after.stale.includes(1) ? { operation: 'unfold', params: { shells: 'stale', relaxedNext } } : undefined;

/** Relaxes the shells that lie flat anew: those that were relaxed before, or all. */
function relaxAnew(after: HemDocument, now: HemDocument, all: boolean): Request | undefined {
  const laid = shellsWhere(shellsOf(now), (f) => after.stale[f] === 1 && (all || after.relaxed[f] === 1));
  const shells = laid.map((s) => facesOfShell(shellsOf(now), s)[0]).filter((f) => !now.stale[f]);
  return shells.length > 0 ? { operation: 'relax', params: { shells, steps: RELAX_STEPS } } : undefined;
}
