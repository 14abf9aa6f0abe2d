import { type HemDocument, shellsOf } from '../../document/document.ts';
import { facesOfShell } from '../../surface/shells.ts';

/** What shells can have in common. */
export const KINDS = ['part', 'material', 'patch'] as const;
export type Kind = (typeof KINDS)[number];

/** The part, material or patch of a shell, by number, as its first face has it; undefined where it has none. */
export function kindOf(document: HemDocument, shell: number, kind: Kind): number | undefined {
  const { model, patches } = document;
  const [face] = facesOfShell(shellsOf(document), shell);
  if (kind === 'part') return model.faceObject[face];
  if (kind === 'material') return model.faceMaterial[face] < 0 ? undefined : model.faceMaterial[face];
  return patches[face] || undefined;
}
