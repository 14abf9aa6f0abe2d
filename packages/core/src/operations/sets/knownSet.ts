import type { DocumentSet, HemDocument } from '../../document/document.ts';
import { HemError } from '../../errors.ts';

/** @throws HemError when there is no such UV set */
export function knownSet({ uvSets }: HemDocument, id: number): DocumentSet {
  const set = uvSets.find((each) => each.id === id);
  if (!set) throw new HemError('no-such-set', 'This UV set is not there any more.', [id]);
  return set;
}

/** @throws HemError when another UV set has the name */
export function freeName({ uvSets }: HemDocument, name: string, id?: number): string {
  if (uvSets.some((set) => set.name === name && set.id !== id))
    throw new HemError('name-taken', `There is a UV set “${name}” already.`);
  return name;
}

/** What a UV set is called; files may leave it without a name. */
export const titleOf = ({ name, id }: Pick<DocumentSet, 'name' | 'id'>): string => name || `UV set ${id + 1}`;

/** The same by its id, in quotes; for labels, which must not fail. */
export function quotedTitle({ uvSets }: HemDocument, id: number): string {
  const set = uvSets.find((each) => each.id === id);
  return `“${titleOf(set ?? { name: '', id })}”`;
}
