import { HemError } from '../errors.ts';
import { NotPositiveDefiniteError } from '../linear/cholesky.ts';
import { type Context, heedStop } from '../progress.ts';
import { unfoldOverlapFree } from '../relax/overlapFree.ts';
import { invertedTriangles, removeInversions } from '../relax/removeInversions.ts';
import { anyDiagonal, type WeightedTriangles } from '../surface/anyDiagonal.ts';
import { type Borders, borders } from '../surface/borders.ts';
import { signedArea } from '../surface/flatArea.ts';
import { restTriangles } from '../surface/restTriangles.ts';
import type { Shell } from '../surface/shell.ts';
import { type ShellTopology, shellTopology } from '../surface/shellTopology.ts';
import { angleBased } from './angleBased.ts';
import { isLocallyInjective } from './isLocallyInjective.ts';
import { lscm, type Pins } from './lscm.ts';
import { CannotMeetPinsError, meetPins, mergePins, nearPins } from './meetPins.ts';
import { keepsArea, nearlyClosed } from './nearlyClosed.ts';
import { spectralConformal } from './spectral.ts';
import { checkBends, type Stay, straightened } from './stay.ts';
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
  /** Whether it is relaxed next: one that is nearly closed is laid out as relaxing would begin it anyway. */
  readonly relaxedNext?: boolean;
}

export interface Unfolded {
  /**
   * `2 × vertexCount`. Model units, with the area of the surface and up where up is, unless pins or stays say
   * otherwise.
   */
  readonly uv: Float64Array;
  /** True when the solver left flipped or folded faces that had to be mended. */
  readonly repaired: boolean;
  /** True when the shell was laid flat as a nearly closed one: see `nearlyClosed`. */
  readonly closed: boolean;
}

/** The piece cannot be laid flat as it is cut. */
export class CannotUnfoldError extends HemError {
  /** @param shells  numbers of the pieces meant, where the caller knows them */
  constructor(
    readonly topology: ShellTopology,
    shells: readonly number[] = [],
  ) {
    super('cannot-unfold', topology.sentence, shells);
    this.name = 'CannotUnfoldError';
  }
}

/**
 * Lays one shell flat, never with a flipped face, and with no polygon folded that need not be: what the solver leaves of those is
 * turned up; where that fails, or the far part of the shell would shrink to nothing, it is laid flat as a nearly closed one.
 *
 * @throws CannotUnfoldError, NoValidMapError, CannotMeetPinsError, StayError, BentStayError, StoppedError
 */
export function unfoldShell(
  shell: Shell,
  method: Method,
  context: Context,
  { pins, stays = [], upAxis = 0, relaxedNext = false }: UnfoldOptions = {},
): Unfolded {
  const topology = shellTopology(shell);
  if (!topology.canUnfold) throw new CannotUnfoldError(topology);
  heedStop(context.signal);
  const { loops } = borders(shell.triangles, shell.positions.length / 3);
  const own = { triangles: shell.triangles, rest: restTriangles(shell.positions, shell.triangles) };
  const every = shell.polygons ? anyDiagonal(shell) : own;
  const onBorder = new Uint8Array(shell.positions.length / 3);
  for (const loop of loops) for (const v of loop) onBorder[v] = 1;
  const isValid = (uv: Float64Array) => isLocallyInjective(shell.triangles, uv, own.rest.area, onBorder);

  /** The solver's map, mended where it has flips or folds; none where it cannot be. */
  const solve = (p?: Pins): Partial<Omit<Unfolded, 'closed'>> & { target: WeightedTriangles } => {
    const { uv, target } = solvers[method](shell, own, every, loops, p, context);
    heedStop(context.signal);
    const flips = uv ? invertedTriangles(own, uv, 0).length : 0;
    if (!uv || flips > MOST_FLIPS * own.rest.area.length) return { target };
    const pinned = new Uint8Array(onBorder.length);
    if (p) for (let i = 0; i < p.vertices.length; i++) pinned[p.vertices[i]] = 1;
    // All may move for folded polygons, and where pins would be lost; other flips are made anew in less time.
    const everything = every !== own && (flips === 0 || p !== undefined);
    const upright = removeInversions(every, uv, pinned, context, everything);
    if (upright && isValid(upright)) return { uv: upright, repaired: upright !== uv, target };
    return isValid(uv) ? { uv, repaired: false, target } : { target };
  };
  const free = (): Unfolded => {
    const { uv: solved, repaired, target } = solve();
    heedStop(context.signal);
    const fits = solved !== undefined && keepsArea(own, solved);
    const clear = fits || !relaxedNext ? undefined : unfoldOverlapFree(shell, {}, context)?.uv;
    heedStop(context.signal);
    if (clear && isValid(clear))
      return { uv: turnUpright(shell, clear, upAxis), repaired: false, closed: false };
    const uv = fits ? solved : nearlyClosed(shell, own, every, target, loops, onBorder, context);
    const scale = Math.sqrt(own.rest.totalArea / signedArea(shell.triangles, uv));
    const sized = uv.map((x) => x * scale);
    return { uv: turnUpright(shell, sized, upAxis), repaired: !fits || repaired === true, closed: !fits };
  };
  const pinned = (wanted: Pins, near: () => Float64Array): Unfolded => {
    const { uv, repaired = false } = solve(wanted);
    if (uv) return { uv, repaired, closed: false };
    const met = meetPins(shell, every, wanted, near(), context);
    if (!isValid(met)) throw new CannotMeetPinsError([...Array.from(wanted.vertices)]);
    return { uv: met, repaired: true, closed: false };
  };

  if (stays.length > 0) {
    checkBends(every.triangles, stays);
    const near = pins ? nearPins(free().uv, pins) : free().uv;
    return pinned(mergePins(straightened(shell, stays, near), pins), () => near);
  }
  if (!pins || pins.vertices.length === 0) return free();
  if (pins.vertices.length > 1) return pinned(pins, () => nearPins(free().uv, pins));
  const one = free();
  return { ...one, uv: nearPins(one.uv, pins) };
}

interface Solved {
  /** Absent where the numbers were hopeless, such as all points in one. */
  readonly uv?: Float64Array;
  /** The triangles whose angles the map is to keep. */
  readonly target: WeightedTriangles;
}

type Solver = (
  shell: Shell,
  own: WeightedTriangles,
  every: WeightedTriangles,
  loops: Borders['loops'],
  pins: Pins | undefined,
  context: Context,
) => Solved;

const solvers: Record<Method, Solver> = {
  conformal: ({ positions }, _, every, loops, pins, { signal }) => {
    const { triangles, rest } = every;
    const uv = unlessHopeless(() =>
      pins
        ? lscm({ positions, triangles }, rest, pins, signal)
        : spectralConformal({ positions, triangles }, rest, loops, signal),
    );
    return { uv, target: every };
  },
  'angle-based': (shell, own, _, loops, pins, context) => {
    const solved = unlessHopeless(() => angleBased(shell, own.rest, loops, pins, context));
    return { uv: solved?.uv, target: solved ? { ...own, rest: solved.flat } : own };
  },
};

function unlessHopeless<T>(solve: () => T): T | undefined {
  try {
    return solve();
  } catch (error) {
    if (error instanceof NotPositiveDefiniteError) return undefined;
    throw error;
  }
}
