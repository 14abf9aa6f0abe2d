import { HemError } from '../errors.ts';
import { signedArea, triangleArea } from '../measure/flatArea.ts';
import type { Context } from '../progress.ts';
import { FlippedStartError, relax } from '../relax/relax.ts';
import { type Borders, borders } from '../seams/borders.ts';
import type { Shell } from '../seams/shell.ts';
import { type Verdict, verdictOf } from '../seams/verdict.ts';
import { angleBased } from './angleBased.ts';
import { distance, farthestPair } from './farthestPair.ts';
import { lscm, type Pins } from './lscm.ts';
import { type RestTriangles, restTriangles } from './restTriangles.ts';
import { tutteEmbedding } from './tutte.ts';
import { turnUpright } from './upright.ts';

/** Solvers an artist can choose from. */
export const METHODS = ['conformal', 'angle-based'] as const;
export type Method = (typeof METHODS)[number];

export interface Unfolded {
  /** `2 × vertexCount`, model units: the flat shell has the area of the surface, and up is up. */
  readonly uv: Float64Array;
  /** True when the solver left flipped faces and the map was made anew from a valid one. */
  readonly repaired: boolean;
}

/** The piece cannot be laid flat as it is cut. */
export class CannotUnfoldError extends HemError {
  /** @param shells  numbers of the pieces meant, where the caller knows them */
  constructor(
    readonly verdict: Verdict,
    shells: readonly number[] = [],
  ) {
    super('cannot-unfold', verdict.sentence, shells);
    this.name = 'CannotUnfoldError';
  }
}

/** Steps of relaxing that turn a bare Tutte embedding into a usable map. */
const REPAIR_STEPS = 25;

/**
 * Lays one shell flat, never with a flipped face: where the solver leaves some, the map is made from a Tutte
 * embedding instead, which has none, and relaxed.
 *
 * @param pins  vertices that keep their UV exactly; without them the result is turned upright
 * @throws CannotUnfoldError, StoppedError
 */
export function unfoldShell(shell: Shell, method: Method, context: Context, pins?: Pins): Unfolded {
  const found = borders(shell.triangles, shell.positions.length / 3);
  const verdict = verdictOf(shell, found);
  if (!verdict.canUnfold) throw new CannotUnfoldError(verdict);
  const rest = restTriangles(shell.positions, shell.triangles);
  const { area, totalArea } = rest;
  const solved = solvers[method](shell, rest, found.loops, pins ?? twoPins(shell, found.loops[0]), context);
  if (pins) return { uv: solved, repaired: false };

  const finish = (uv: Float64Array, repaired: boolean): Unfolded => ({
    uv: turnUpright(shell, scaled(uv, Math.sqrt(totalArea / signedArea(shell.triangles, uv)))),
    repaired,
  });
  if (isFlipFree(shell.triangles, solved, area)) return finish(solved, false);
  const valid = tutteEmbedding(shell, totalArea, context.signal);
  try {
    return finish(relax(shell, valid, { steps: REPAIR_STEPS }, context).uv, true);
  } catch (error) {
    if (error instanceof FlippedStartError) return finish(valid, true);
    throw error;
  }
}

type Solver = (
  shell: Shell,
  rest: RestTriangles,
  loops: Borders['loops'],
  pins: Pins,
  context: Context,
) => Float64Array;

const solvers: Record<Method, Solver> = {
  conformal: (shell, rest, _, pins, { signal }) => lscm(shell, rest, pins, signal),
  'angle-based': angleBased,
};

/** The farthest pair of a border, at its true distance. */
function twoPins(shell: Shell, loop: Uint32Array): Pins {
  const pair = farthestPair(shell.positions, loop);
  return { vertices: pair, uv: [0, 0, distance(shell.positions, ...pair) || 1, 0] };
}

/** True when no triangle is flipped, and none has shrunk to less than a millionth of its due area. */
export function isFlipFree(triangles: Uint32Array, uv: Float64Array, area: Float64Array): boolean {
  const whole = signedArea(triangles, uv);
  if (!(whole > 0)) return false;
  let total = 0;
  for (let t = 0; t < area.length; t++) total += area[t];
  const least = 1e-6 * (whole / total);
  for (let t = 0; t < area.length; t++) {
    if (!(triangleArea(triangles, uv, t) > least * area[t])) return false;
  }
  return true;
}

const scaled = (uv: Float64Array, factor: number): Float64Array => uv.map((x) => x * factor);
