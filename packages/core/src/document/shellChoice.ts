import type { WhichShells } from '../params.ts';
import { plural } from '../plural.ts';
import { facesOfShell, shellsWhere } from '../surface/shells.ts';
import { isLocked } from './constraints.ts';
import { type HemDocument, shellsOf } from './document.ts';
import { knownFaces } from './known.ts';

/**
 * The shells that a parameter means, by number, in order, without those that are locked.
 *
 * @throws HemError when a face is none of this document's
 */
export function chosenShells(document: HemDocument, which: WhichShells): number[] {
  const named = namedShells(document, which);
  return document.locked.includes(1) ? named.filter((s) => !isLocked(document, s)) : named;
}

/** The shells that a parameter means, locked ones as well. */
export function namedShells(document: HemDocument, which: WhichShells): number[] {
  const shells = shellsOf(document);
  if (which === 'all') return Array.from({ length: shells.shellCount }, (_, s) => s);
  if (which === 'stale') return shellsWhere(shells, (f) => document.stale[f] === 1);
  knownFaces(document.model.mesh, which);
  return [...new Set(which.map((f) => shells.faceShell[f]))].sort((a, b) => a - b);
}

/** The least face of a shell: its name while seams stay as they are. */
export const nameOfShell = (document: HemDocument, shell: number): number =>
  facesOfShell(shellsOf(document), shell)[0];

export const shellsLabel = (document: HemDocument, which: WhichShells): string =>
  which === 'all'
    ? 'all shells'
    : which === 'stale'
      ? 'changed shells'
      : plural(chosenShells(document, which).length, 'shell');
