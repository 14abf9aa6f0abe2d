import { HemError } from '../errors.ts';
import type { ValueChange } from './delta.ts';
import type { HemDocument } from './document.ts';
import { MARKS } from './fields.ts';

/** A patch by its number, from 1. @throws HemError when there is none of that number */
export function knownPatch({ patchNames }: HemDocument, patch: number): number {
  if (patchNames[patch - 1]) return patch;
  throw new HemError('no-such-patch', `There is no patch ${patch}.`, [patch]);
}

/**
 * Numbers that no patch has yet, least first.
 *
 * @throws HemError when there are not so many
 */
export function freePatches({ patchNames }: HemDocument, count: number): number[] {
  const free: number[] = [];
  for (let patch = 1; patch < MARKS.patches.limit && free.length < count; patch++)
    if (!patchNames[patch - 1]) free.push(patch);
  if (free.length === count) return free;
  throw new HemError(
    'too-many-patches',
    `A model can have ${MARKS.patches.limit - 1} patches, and there is room for ${free.length} more, not for ${count}. Remove some first.`,
  );
}

/** Gives patches their names; an empty one takes a patch away. */
export function namedPatches(
  { patchNames }: HemDocument,
  named: Iterable<readonly [patch: number, name: string]>,
): ValueChange {
  const names = [...patchNames];
  for (const [patch, name] of named) {
    while (names.length < patch) names.push('');
    names[patch - 1] = name;
  }
  return { kind: 'value', field: 'patchNames', before: patchNames, after: names };
}
