import type { HemDocument } from '../document/document.ts';
import { shellsOf } from '../document/document.ts';
import { HemError } from '../errors.ts';
import { plural } from './operation.ts';
import type { WhichShells } from './schemas.ts';

/**
 * The shells a parameter means, in order.
 *
 * @throws HemError when a number is none of this document's shells
 */
export function chosenShells(document: HemDocument, which: WhichShells): number[] {
  const shells = shellsOf(document);
  if (which === 'all') return Array.from({ length: shells.shellCount }, (_, s) => s);
  if (which === 'stale') {
    const stale = new Set<number>();
    document.stale.forEach((mark, f) => {
      if (mark) stale.add(shells.faceShell[f]);
    });
    return [...stale].sort((a, b) => a - b);
  }
  const unknown = which.filter((s) => s >= shells.shellCount);
  if (unknown.length > 0) {
    throw new HemError(
      'no-such-shell',
      `There is no shell ${unknown[0] + 1}: the model has ${shells.shellCount}.`,
      unknown,
    );
  }
  return [...new Set(which)].sort((a, b) => a - b);
}

export const shellsLabel = (which: WhichShells): string =>
  which === 'all' ? 'all shells' : which === 'stale' ? 'changed shells' : plural(which.length, 'shell');
