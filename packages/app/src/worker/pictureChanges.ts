import { changesModel, type Delta, switchesSet } from '@blunt-hem/core/document/delta';
import { FLAT_PARTS, type FlatPart } from './buffers.ts';

/** What of the picture of the flat deltas made another; all of it where there are no deltas. */
export function flatPartsChanged(deltas: readonly Delta[]): ReadonlySet<FlatPart> {
  const all = new Set(FLAT_PARTS);
  const changed = new Set<FlatPart>();
  if (deltas.length === 0) return all;
  for (const change of deltas.flatMap(({ changes }) => changes)) {
    if (change.kind === 'remesh' || change.kind === 'replacement' || change.kind === 'set-switched')
      return all;
    if (change.kind === 'uv') changed.add('uv');
    if (change.kind === 'marks') {
      const part = FLAT_PARTS.find((each) => each === change.field);
      if (part) changed.add(part);
      // A pin is drawn once on each side of a seam.
      if (part === 'seams') changed.add('pins');
    }
  }
  return changed;
}

/** Whether a field, or the mesh it belongs to, is another. */
export const changesOne =
  (...fields: readonly string[]) =>
  (delta: Delta): boolean =>
    changesModel(delta) ||
    switchesSet(delta) ||
    delta.changes.some((change) => 'field' in change && fields.includes(change.field));
