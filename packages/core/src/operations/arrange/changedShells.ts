import { type HemDocument, shellOf, shellUv } from '../../document/document.ts';
import { NO_CHANGE, type Patch } from '../../document/patch.ts';
import { cornerUv, uvDifference } from '../../document/uvChange.ts';
import type { WhichShells } from '../../params.ts';
import type { Shell } from '../../surface/shell.ts';
import { chosenShells } from '../shellChoice.ts';
import { closeness, toldLanded } from './closeness.ts';
import { placedChange, placingNotes } from './keepPlaces.ts';

/** Lays shells otherwise; those without UVs are left out, and places are kept from now on. */
export function changedShells(
  document: HemDocument,
  shells: WhichShells,
  change: (shell: Shell, uv: Float64Array) => Float64Array,
): Patch {
  const uvOf = new Map<number, Float64Array>();
  for (const s of chosenShells(document, shells)) {
    const shell = shellOf(document, s);
    const uv = shellUv(document, shell);
    if (uv) uvOf.set(s, change(shell, uv));
  }
  if (uvOf.size === 0) return NO_CHANGE;
  const next = cornerUv(document, uvOf);
  const close = closeness(document, next);
  const { model, uvSets, currentUv } = document;
  return {
    changes: [uvDifference(model.mesh, currentUv, uvSets[currentUv].uv, next), placedChange(document, 1)],
    notes: [...placingNotes(document), ...toldLanded(close, [...uvOf.keys()])],
  };
}
