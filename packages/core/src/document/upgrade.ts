import { faceCount } from '../mesh/mesh.ts';
import type { HemDocument } from './document.ts';
import type { Act } from './history.ts';

/** A document as kept by any version so far: at first parts were hidden, and now faces are; all come back shown. */
export function upgradedDocument(kept: HemDocument): HemDocument {
  if ('hidden' in kept) return kept;
  const { hiddenParts: _, ...rest } = kept as HemDocument & { hiddenParts: unknown };
  return { ...rest, hidden: new Uint8Array(faceCount(rest.model.mesh)) };
}

/** Acts without what no longer means anything. */
export function upgradedActs<T extends Act>(acts: readonly T[]): T[] {
  return acts.map((act) => {
    const changes = act.patch.changes.filter(
      (change) => !(change.kind === 'marks' && (change.field as string) === 'hiddenParts'),
    );
    return changes.length === act.patch.changes.length ? act : { ...act, patch: { ...act.patch, changes } };
  });
}
