import { facesOfShell } from '../surface/shells.ts';
import { type HemDocument, shellsOf } from './document.ts';

/** The group in which a shell is packed; 0 for none. */
export function groupOf(document: HemDocument, shell: number): number {
  const [face] = facesOfShell(shellsOf(document), shell);
  return document.groups[face];
}

/** A number that no group has. */
export function nextGroup({ groups }: HemDocument): number {
  const taken = new Set(groups);
  let next = 1;
  while (taken.has(next)) next++;
  return next;
}
