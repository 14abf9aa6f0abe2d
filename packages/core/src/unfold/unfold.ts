import { HemError } from '../errors.ts';
import { NotPositiveDefiniteError } from '../linear/cholesky.ts';
import { type Context, heedStop } from '../progress.ts';
import { FlippedStartError, relax } from '../relax/relax.ts';
import { facingDown, untangle } from '../relax/untangle.ts';
import { anyDiagonal, type WeightedTriangles } from '../surface/anyDiagonal.ts';
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

/** A map of which more than this part is flipped is made anew, not mended: it would wind about itself. */
const MOST_FLIPS = 0.02;

/** Solvers an artist can choose from. */
export const METHODS = ['conformal', 'angle-based'] as const;
export type Method = (typeof METHODS)[number];

export interface UnfoldOptions {
  /** Vertices that keep their UV exactly. */
  readonly pins?: Pins;
  /** Chains that lie straight at true length. */
  readonly stays?: readonly Stay[];
  /** Which axis points up, as a document says it; what is up on the model is up in the flat. */
  readonly upAxis?: number;
}

export interface Unfolded {
  /**
   * `2 × vertexCount`. Model units, with the area of the surface and up where up is, unless pins or stays say
   * otherwise.
   */
  readonly uv: Float64Array;
  /** True when the solver left flipped or folded faces that had to be mended. */
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
 * Lays one shell flat, never with a flipped face, and with no polygon folded that need not be: what the solver leaves of those is
 * untangled; where that fails the map is made from a Tutte embedding instead, which has no flips, and relaxed.
 *
 * @throws CannotUnfoldError, CannotMeetPinsError, StayError, StoppedError
 */
export function unfoldShell(
  shell: Shell,
  method: Method,
  context: Context,
  { pins, stays = [], upAxis = 0 }: UnfoldOptions = {},
): Unfolded {
  const found = borders(shell.triangles, shell.positions.length / 3);
  heedStop(context.signal);
  const verdict = verdictOf(shell, found);
  if (!verdict.canUnfold) throw new CannotUnfoldError(verdict);
  heedStop(context.signal);
  const rest = restTriangles(shell.positions, shell.triangles);
  const anyWay = shell.polygons ? anyDiagonal(shell) : { triangles: shell.triangles, rest };
  const onBorder = new Uint8Array(shell.positions.length / 3);
  for (const loop of found.loops) for (const v of loop) onBorder[v] = 1;
  const isValid = (uv: Float64Array) => isLocallyInjective(shell.triangles, uv, rest.area, onBorder);

  /** The solver's map, mended where it has flips or folds; undefined where it cannot be. */
  const solve = (p?: Pins): Unfolded | undefined => {
    try {
      const uv = solvers[method](shell, rest, anyWay, found.loops, p, context);
      heedStop(context.signal);
      const own = { triangles: shell.triangles, rest };
      if (facingDown(own, uv, 0).length > MOST_FLIPS * rest.area.length) return undefined;
      const pinned = new Uint8Array(onBorder.length);
      if (p) for (let i = 0; i < p.vertices.length; i++) pinned[p.vertices[i]] = 1;
      const untangled = untangle(anyWay, uv, pinned, context);
      if (untangled && isValid(untangled)) return { uv: untangled, repaired: untangled !== uv };
      return isValid(uv) ? { uv, repaired: false } : undefined;
    } catch (error) {
      // Hopeless numbers, such as all points in one: the way round by Tutte's embedding needs none of them.
      if (error instanceof NotPositiveDefiniteError) return undefined;
      throw error;
    }
  };
  const free = (): Unfolded => {
    const solved = solve();
    heedStop(context.signal);
    const uv = solved?.uv ?? fromTutte(shell, rest.totalArea, context);
    const scale = Math.sqrt(rest.totalArea / signedArea(shell.triangles, uv));
    const sized = uv.map((x) => x * scale);
    return { uv: turnUpright(shell, sized, upAxis), repaired: solved?.repaired ?? true };
  };
  const pinned = (wanted: Pins, near: () => Float64Array): Unfolded => {
    return solve(wanted) ?? { uv: meetPins(shell, anyWay, wanted, near(), context), repaired: true };
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
  anyWay: WeightedTriangles,
  loops: Borders['loops'],
  pins: Pins | undefined,
  context: Context,
) => Float64Array;

const solvers: Record<Method, Solver> = {
  conformal: ({ positions }, _, { triangles, rest }, loops, pins, { signal }) =>
    pins
      ? lscm({ positions, triangles }, rest, pins, signal)
      : spectralConformal({ positions, triangles }, rest, loops, signal),
  'angle-based': (shell, rest, _, loops, pins, context) => angleBased(shell, rest, loops, pins, context),
};

/** A map made from a bare Tutte embedding, relaxed until it is usable. */
function fromTutte(shell: Shell, area: number, context: Context): Float64Array {
  const valid = tutteEmbedding(shell, area, context.signal);
  try {
    return relax(shell, valid, REPAIR, context).uv;
  } catch (error) {
    if (error instanceof FlippedStartError) return valid;
    throw error;
  }
}
