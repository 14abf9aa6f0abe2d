import { HemError } from '../errors.ts';
import { NotPositiveDefiniteError } from '../linear/cholesky.ts';
import { type Context, heedStop } from '../progress.ts';
import { FlippedStartError, relax } from '../relax/relax.ts';
import { type Borders, borders } from '../surface/borders.ts';
import { signedArea } from '../surface/flatArea.ts';
import { type RestTriangles, restTriangles } from '../surface/restTriangles.ts';
import type { Shell } from '../surface/shell.ts';
import { type Verdict, verdictOf } from '../surface/verdict.ts';
import { angleBased } from './angleBased.ts';
import { isLocallyInjective } from './isLocallyInjective.ts';
import { lscm, type Pins } from './lscm.ts';
import { joined, meetPins, nearPins, REPAIR } from './meetPins.ts';
import { spectralConformal } from './spectral.ts';
import { type Stay, straightened } from './stay.ts';
import { tutteEmbedding } from './tutte.ts';
import { turnUpright } from './upright.ts';

/** Solvers an artist can choose from. */
export const METHODS = ['conformal', 'angle-based'] as const;
export type Method = (typeof METHODS)[number];

export interface UnfoldOptions {
  /** Vertices that keep their UV exactly. */
  readonly pins?: Pins;
  /** Chains that lie straight at true length. */
  readonly stays?: readonly Stay[];
}

export interface Unfolded {
  /**
   * `2 × vertexCount`. Model units, with the area of the surface and up where up is, unless pins or stays say
   * otherwise.
   */
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

/**
 * Lays one shell flat, never with a flipped face: where the solver leaves some, the map is made from a Tutte
 * embedding instead, which has none, and relaxed.
 *
 * @throws CannotUnfoldError, CannotMeetPinsError, StayError, StoppedError
 */
export function unfoldShell(
  shell: Shell,
  method: Method,
  context: Context,
  { pins, stays = [] }: UnfoldOptions = {},
): Unfolded {
  const found = borders(shell.triangles, shell.positions.length / 3);
  heedStop(context.signal);
  const verdict = verdictOf(shell, found);
  if (!verdict.canUnfold) throw new CannotUnfoldError(verdict);
  heedStop(context.signal);
  const rest = restTriangles(shell.positions, shell.triangles);
  const onBorder = new Uint8Array(shell.positions.length / 3);
  for (const loop of found.loops) for (const v of loop) onBorder[v] = 1;

  /** The solver's map, unless it has flips. */
  const solve = (p?: Pins): Float64Array | undefined => {
    try {
      const uv = solvers[method](shell, rest, found.loops, p, context);
      heedStop(context.signal);
      return isLocallyInjective(shell.triangles, uv, rest.area, onBorder) ? uv : undefined;
    } catch (error) {
      // Hopeless numbers, such as all points in one: the way round by Tutte's embedding needs none of them.
      if (error instanceof NotPositiveDefiniteError) return undefined;
      throw error;
    }
  };
  const free = (): Unfolded => {
    const solved = solve();
    heedStop(context.signal);
    const uv = solved ?? fromTutte(shell, rest, context);
    const scale = Math.sqrt(rest.totalArea / signedArea(shell.triangles, uv));
    const sized = uv.map((x) => x * scale);
    return { uv: turnUpright(shell, sized), repaired: !solved };
  };
  const pinned = (wanted: Pins, near: () => Float64Array): Unfolded => {
    const solved = solve(wanted);
    return solved
      ? { uv: solved, repaired: false }
      : { uv: meetPins(shell, rest, wanted, near(), context), repaired: true };
  };

  if (stays.length > 0) {
    const near = pins ? nearPins(free().uv, pins) : free().uv;
    return pinned(joined(straightened(shell, stays, near), pins), () => near);
  }
  if (!pins || pins.vertices.length === 0) return free();
  if (pins.vertices.length > 1) return pinned(pins, () => nearPins(free().uv, pins));
  const one = free();
  return { ...one, uv: nearPins(one.uv, pins) };
}

type Solver = (
  shell: Shell,
  rest: RestTriangles,
  loops: Borders['loops'],
  pins: Pins | undefined,
  context: Context,
) => Float64Array;

const solvers: Record<Method, Solver> = {
  conformal: (shell, rest, loops, pins, { signal }) =>
    pins ? lscm(shell, rest, pins, signal) : spectralConformal(shell, rest, loops, signal),
  'angle-based': angleBased,
};

/** A map made from a bare Tutte embedding, relaxed until it is usable. */
function fromTutte(shell: Shell, rest: RestTriangles, context: Context): Float64Array {
  const valid = tutteEmbedding(shell, rest.totalArea, context.signal);
  try {
    return relax(shell, valid, REPAIR, context).uv;
  } catch (error) {
    if (error instanceof FlippedStartError) return valid;
    throw error;
  }
}
