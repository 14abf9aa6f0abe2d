import { type Delta, NO_CHANGE } from '../../document/delta.ts';
import { type HemDocument, shellOf, shellUv } from '../../document/document.ts';
import { chosenShells } from '../../document/shellChoice.ts';
import { cornerUv, uvDifference } from '../../document/uvChange.ts';
import type { WhichShells } from '../../params.ts';
import type { Shell } from '../../surface/shell.ts';
import { onBoard } from './boardLayout.ts';
import { closeness, toldLanded } from './closeness.ts';
import { placedChange, placingNotes } from './keepPlaces.ts';

type ChangeOfShell = (shell: Shell, uv: Float64Array) => Float64Array;

/** Lays shells exactly as a hand says; those without UVs are left out, and places are kept from now on. */
export function changedShells(document: HemDocument, shells: WhichShells, change: ChangeOfShell): Delta {
  const uvOf = changedUv(document, shells, change);
  if (uvOf.size === 0) return NO_CHANGE;
  const next = cornerUv(document, uvOf);
  const close = closeness(document, next);
  return {
    changes: [uvDifference(document, next), placedChange(document, 1)],
    notes: [...placingNotes(document), ...toldLanded(close, [...uvOf.keys()])],
  };
}

/** Lays shells otherwise, about where they are; one that would come to lie on another goes to free space. */
export function clearlyChanged(document: HemDocument, shells: WhichShells, change: ChangeOfShell): Delta {
  const { change: uvs, notes } = onBoard(document, changedUv(document, shells, change));
  return { changes: [uvs], notes };
}

/** The changed maps of those shells that have UVs. */
function changedUv(
  document: HemDocument,
  shells: WhichShells,
  change: ChangeOfShell,
): Map<number, Float64Array> {
  const uvOf = new Map<number, Float64Array>();
  for (const s of chosenShells(document, shells)) {
    const shell = shellOf(document, s);
    const uv = shellUv(document, shell);
    if (uv) uvOf.set(s, change(shell, uv));
  }
  return uvOf;
}
