import { type HemDocument, shellOf, shellUv } from '../../document/document.ts';
import type { Patch } from '../../document/patch.ts';
import { uvChange } from '../../document/uvChange.ts';
import type { WhichShells } from '../../params.ts';
import type { Shell } from '../../surface/shell.ts';
import { chosenShells } from '../shellChoice.ts';
import { placedChange } from './keepPlaces.ts';

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
  const notes = document.placed || uvOf.size === 0 ? [] : ['From now on shells keep their places.'];
  const placed = uvOf.size > 0 ? [placedChange(document, 1)] : [];
  return { changes: [uvChange(document, uvOf), ...placed], notes };
}
