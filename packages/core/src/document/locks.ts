import { HemError } from '../errors.ts';
import { plural } from '../plural.ts';
import { facesOfShell } from '../surface/shells.ts';
import { isLocked } from './constraints.ts';
import type { Change } from './delta.ts';
import { type HemDocument, shellsOf, topologyOf } from './document.ts';
import { MARKS, type MarkField } from './fields.ts';
import { cornersOf } from './uvChange.ts';

/** What is meant is finished and stays so. */
export class LockedError extends HemError {
  /** @param faces  one of each shell */
  constructor(faces: readonly number[]) {
    super(
      'locked',
      faces.length === 1
        ? 'This shell is locked, and stays as it is: unlock it first.'
        : `These ${faces.length} shells are locked, and stay as they are: unlock them first.`,
      faces,
    );
    this.name = 'LockedError';
  }
}

/** Locked shells among some, by number. */
export const lockedOf = (document: HemDocument, shells: Iterable<number>): number[] =>
  document.locked.includes(1) ? [...shells].filter((s) => isLocked(document, s)) : [];

/** What is said of locked shells that an act over several left out. */
export const leftLocked = (count: number): string[] =>
  count > 0 ? [`${plural(count, 'locked shell')} left as ${count === 1 ? 'it is' : 'they are'}.`] : [];

/** Marks that say what a face is called, whether it is seen, and with what it is packed; the others say how its shell lies. */
const APART: readonly MarkField[] = ['hidden', 'patches', 'locked', 'groups'];

/** @throws LockedError when changes would lay a locked shell otherwise, or cut it */
export function heedLocks(document: HemDocument, changes: readonly Change[]): void {
  const { locked, model } = document;
  if (!locked.includes(1)) return;
  const { connectivity } = topologyOf(model);
  const { faceShell } = shellsOf(document);
  const touched = new Set<number>();
  const touch = (face: number) => {
    if (locked[face]) touched.add(faceShell[face]);
  };
  const touchEdge = (e: number) => {
    for (let k = connectivity.edgeCornerStart[e]; k < connectivity.edgeCornerStart[e + 1]; k++)
      touch(connectivity.cornerFace[connectivity.edgeCorners[k]]);
  };
  for (const change of changes) {
    // What belongs to another mesh has other numbers.
    if (change.kind === 'remesh' || change.kind === 'replacement') return;
    if (change.kind === 'uv')
      for (const c of cornersOf(model.mesh, change)) touch(connectivity.cornerFace[c]);
    if (change.kind !== 'marks' || APART.includes(change.field)) continue;
    const { per } = MARKS[change.field];
    for (const i of change.index) {
      if (per === 'edge') touchEdge(i);
      else touch(per === 'corner' ? connectivity.cornerFace[i] : i);
    }
  }
  if (touched.size > 0)
    throw new LockedError([...touched].map((s) => facesOfShell(shellsOf(document), s)[0]));
}
