import { borders } from './borders.ts';
import type { Shell } from './shell.ts';

/** What a piece is, as far as flattening goes. */
export type ShellKind = 'flat' | 'tube' | 'holes' | 'closed' | 'handle' | 'tangled';

export interface Verdict {
  readonly kind: ShellKind;
  /** Whether a solver will take it as it is. */
  readonly canUnfold: boolean;
  readonly borderCount: number;
  readonly genus: number;
  /** In plain words, with what is missing. */
  readonly sentence: string;
}

/**
 * Can it be flattened? From the Euler characteristic of the shell and its borders.
 */
export function verdictOf(shell: Shell): Verdict {
  const vertices = shell.positions.length / 3;
  const { loops, edgeCount, tangled } = borders(shell.triangles, vertices);
  const borderCount = loops.length;
  const euler = vertices - edgeCount + shell.triangles.length / 3;
  const genus = tangled ? 0 : Math.max(0, (2 - borderCount - euler) / 2);
  const kind = kindOf(tangled, borderCount, genus);
  return {
    kind,
    canUnfold: kind === 'flat' || kind === 'tube' || kind === 'holes',
    borderCount,
    genus,
    sentence: sentences[kind](borderCount, genus),
  };
}

function kindOf(tangled: boolean, borderCount: number, genus: number): ShellKind {
  if (tangled) return 'tangled';
  if (borderCount === 0) return 'closed';
  if (genus > 0) return 'handle';
  if (borderCount === 1) return 'flat';
  return borderCount === 2 ? 'tube' : 'holes';
}

const sentences: Record<ShellKind, (borderCount: number, genus: number) => string> = {
  flat: () => 'One border: it can lie flat.',
  tube: () => 'A tube with two borders: it lies flat as a ring; one lengthwise cut gives a strip.',
  holes: (n) => `Lies flat, with ${n} borders; a cut from hole to border lowers the stretch.`,
  closed: (_, g) =>
    g > 0
      ? `Closed, with ${g} handle${g > 1 ? 's' : ''}: it has no border to open from. Cut it open first.`
      : 'Closed: it has no border to open from. Cut it open first.',
  handle: (_, g) =>
    `Has ${g} handle${g > 1 ? 's' : ''}: each needs a cut across and a cut round before it lies flat.`,
  tangled: () =>
    'Three or more faces meet at one edge here: cut along that edge, or repair it, before unfolding.',
};
