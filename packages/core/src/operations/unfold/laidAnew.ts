import { type Change, markChange } from '../../document/delta.ts';
import { type HemDocument, hasUv, shellsOf } from '../../document/document.ts';
import { facesOfShell } from '../../surface/shells.ts';

/** Marks those of some shells that lie flat as changed since, so that what follows lays them flat anew. */
export function laidAnew(document: HemDocument, shells: readonly number[]): Change {
  const flat = shells.filter((s) => hasUv(document, s));
  const faces = flat.flatMap((s) => [...facesOfShell(shellsOf(document), s)]);
  return markChange(document, 'stale', faces, 1);
}
