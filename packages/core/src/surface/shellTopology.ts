import { distance } from '../mesh/distance.ts';
import { areaOfTriangle } from './areas.ts';
import { borders } from './borders.ts';
import type { Shell } from './shell.ts';

/** What a piece is, as far as flattening goes. */
export type ShellKind = 'disk' | 'annulus' | 'holes' | 'pinholes' | 'closed' | 'withHandle' | 'nonManifold';

/** Borders shorter than this part of the square root of the surface, all together, open nothing. */
const PINHOLES = 0.05;

export interface ShellTopology {
  readonly kind: ShellKind;
  /** Whether a solver will take it as it is. */
  readonly canUnfold: boolean;
  readonly borderCount: number;
  readonly genus: number;
  /** In plain words, with what is missing. */
  readonly sentence: string;
}

const known = new WeakMap<Shell, ShellTopology>();

/** Can it be flattened? From the Euler characteristic of the shell and its borders, worked out once. */
export function shellTopology(shell: Shell): ShellTopology {
  const topology = known.get(shell) ?? topologyFrom(shell);
  known.set(shell, topology);
  return topology;
}

function topologyFrom(shell: Shell): ShellTopology {
  const vertices = shell.positions.length / 3;
  const { loops, edgeCount, nonManifold } = borders(shell.triangles, vertices);
  const borderCount = loops.length;
  const euler = vertices - edgeCount + shell.triangles.length / 3;
  const genus = nonManifold ? 0 : Math.max(0, (2 - borderCount - euler) / 2);
  const kind = kindOf(nonManifold, borderCount, genus, () => hasPinholes(shell, loops));
  return {
    kind,
    canUnfold: kind === 'disk' || kind === 'annulus' || kind === 'holes' || kind === 'pinholes',
    borderCount,
    genus,
    sentence: sentences[kind](borderCount, genus),
  };
}

function kindOf(
  nonManifold: boolean,
  borderCount: number,
  genus: number,
  areSmall: () => boolean,
): ShellKind {
  if (nonManifold) return 'nonManifold';
  if (borderCount === 0) return 'closed';
  if (genus > 0) return 'withHandle';
  if (areSmall()) return 'pinholes';
  if (borderCount === 1) return 'disk';
  return borderCount === 2 ? 'annulus' : 'holes';
}

function hasPinholes({ positions, triangles }: Shell, loops: readonly Uint32Array[]): boolean {
  let length = 0;
  for (const loop of loops)
    loop.forEach((v, i) => {
      length += distance(positions, v, loop[(i + 1) % loop.length]);
    });
  // Summed up only as far as it takes.
  const enough = (length / PINHOLES) ** 2;
  let area = 0;
  for (let i = 0; i < triangles.length && area <= enough; i += 3)
    area += areaOfTriangle(positions, triangles[i], triangles[i + 1], triangles[i + 2]);
  return area > enough;
}

const sentences: Record<ShellKind, (borderCount: number, genus: number) => string> = {
  disk: () => 'One border: it can lie flat.',
  annulus: () => 'A tube with two borders: it lies flat as a ring; one lengthwise cut gives a strip.',
  holes: (n) => `Lies flat, with ${n} borders; a cut from hole to border lowers the stretch.`,
  pinholes: (n) =>
    `Closed but for ${n === 1 ? 'a small hole' : `${n} small holes`}: it can lie flat, with great stretch. Cut it open first.`,
  closed: (_, g) =>
    g > 0
      ? `Closed, with ${g} handle${g > 1 ? 's' : ''}: it has no border to open from. Cut it open first.`
      : 'Closed: it has no border to open from. Cut it open first.',
  withHandle: (_, g) =>
    `Has ${g} handle${g > 1 ? 's' : ''}: each needs a cut across and a cut round before it lies flat.`,
  nonManifold: () =>
    'Three or more faces meet at one edge here: cut along that edge, or repair it, before unfolding.',
};
