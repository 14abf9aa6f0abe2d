import { HemError } from '../errors.ts';
import { NotPositiveDefiniteError } from '../linear/cholesky.ts';
import { signedArea, triangleArea } from '../measure/flatArea.ts';
import type { Context } from '../progress.ts';
import { pullVertices } from '../relax/pullVertices.ts';
import { FlippedStartError, relax } from '../relax/relax.ts';
import { type Borders, borders } from '../seams/borders.ts';
import type { Shell } from '../seams/shell.ts';
import { type Verdict, verdictOf } from '../seams/verdict.ts';
import { angleBased } from './angleBased.ts';
import { distance, farthestPair } from './farthestPair.ts';
import { lscm, type Pins } from './lscm.ts';
import { type RestTriangles, restTriangles } from './restTriangles.ts';
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

/** Pins or stays ask for a map that would have to flip faces. */
export class CannotMeetPinsError extends HemError {
  constructor(vertices: readonly number[]) {
    super(
      'cannot-meet-pins',
      'These pins and stays cannot all be met without flipping faces: move one, or let one go.',
      vertices,
    );
    this.name = 'CannotMeetPinsError';
  }
}

/** Steps of relaxing that turn a bare Tutte embedding into a usable map. */
const REPAIR_STEPS = 25;

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
  const verdict = verdictOf(shell, found);
  if (!verdict.canUnfold) throw new CannotUnfoldError(verdict);
  const rest = restTriangles(shell.positions, shell.triangles);
  const solve = (p: Pins): Float64Array | undefined => {
    try {
      return solvers[method](shell, rest, found.loops, p, context);
    } catch (error) {
      // Hopeless numbers, such as all points in one: the way round by Tutte's embedding needs none of them.
      if (error instanceof NotPositiveDefiniteError) return undefined;
      throw error;
    }
  };

  if (pins && pins.vertices.length > 1 && stays.length === 0)
    return pinned(shell, rest, pins, solve, context);
  const free = unpinned(shell, rest, solve(twoPins(shell, found.loops[0])), context);
  if (stays.length > 0) {
    const near = pins ? moved(free.uv, pins) : free.uv;
    const lines = straightened(shell, stays, near);
    return pinned(shell, rest, both(lines, pins), solve, context, near);
  }
  return pins ? { ...free, uv: moved(free.uv, pins) } : free;
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

/** A solver's map at the size of the surface and upright, or one made from a Tutte embedding where it has flips. */
function unpinned(
  shell: Shell,
  rest: RestTriangles,
  solved: Float64Array | undefined,
  context: Context,
): Unfolded {
  const { area, totalArea } = rest;
  const finish = (uv: Float64Array, repaired: boolean): Unfolded => {
    const scale = Math.sqrt(totalArea / signedArea(shell.triangles, uv));
    return { uv: turnUpright(shell, scaled(uv, scale)), repaired };
  };
  if (solved && isFlipFree(shell.triangles, solved, area)) return finish(solved, false);
  const valid = tutteEmbedding(shell, totalArea, context.signal);
  try {
    return finish(relax(shell, valid, { steps: REPAIR_STEPS }, context).uv, true);
  } catch (error) {
    if (error instanceof FlippedStartError) return finish(valid, true);
    throw error;
  }
}

/**
 * A map that meets its pins: the solver's, or where that has flips a valid one whose pinned vertices are pulled to
 * their places.
 *
 * @param near  a valid map near the pins, where one is known
 */
function pinned(
  shell: Shell,
  rest: RestTriangles,
  pins: Pins,
  solve: (pins: Pins) => Float64Array | undefined,
  context: Context,
  near?: Float64Array,
): Unfolded {
  const solved = solve(pins);
  if (solved && isFlipFree(shell.triangles, solved, rest.area)) return { uv: solved, repaired: false };
  let valid = near;
  if (!valid) {
    const loops = borders(shell.triangles, shell.positions.length / 3).loops;
    valid = moved(unpinned(shell, rest, solve(twoPins(shell, loops[0])), context).uv, pins);
  }
  const scale = Math.sqrt(rest.totalArea / signedArea(shell.triangles, valid));
  const goal = Float64Array.from(pins.uv, (x) => x * scale);
  const pulled = pullVertices(shell.triangles, rest, scaled(valid, scale), pins.vertices, goal, context);
  if (!pulled) throw new CannotMeetPinsError([...Array.from(pins.vertices)]);
  const uv = scaled(pulled, 1 / scale);
  for (let i = 0; i < pins.vertices.length; i++) {
    uv[2 * pins.vertices[i]] = pins.uv[2 * i];
    uv[2 * pins.vertices[i] + 1] = pins.uv[2 * i + 1];
  }
  const fixed = new Uint8Array(uv.length / 2);
  for (let i = 0; i < pins.vertices.length; i++) fixed[pins.vertices[i]] = 1;
  return { uv: relax(shell, uv, { fixed, steps: REPAIR_STEPS }, context).uv, repaired: true };
}

/** The map moved, turned and scaled so that its pinned vertices lie as near as can be to their places. */
function moved(uv: Float64Array, { vertices, uv: places }: Pins): Float64Array {
  const n = vertices.length;
  let [cu, cv, pu, pv] = [0, 0, 0, 0];
  for (let i = 0; i < n; i++) {
    cu += uv[2 * vertices[i]] / n;
    cv += uv[2 * vertices[i] + 1] / n;
    pu += places[2 * i] / n;
    pv += places[2 * i + 1] / n;
  }
  // As complex numbers, the factor Σ w̄ z / Σ w̄ w from the map's w to the places' z.
  let [re, im, square] = [0, 0, 0];
  for (let i = 0; i < n; i++) {
    const wu = uv[2 * vertices[i]] - cu;
    const wv = uv[2 * vertices[i] + 1] - cv;
    const zu = places[2 * i] - pu;
    const zv = places[2 * i + 1] - pv;
    re += wu * zu + wv * zv;
    im += wu * zv - wv * zu;
    square += wu * wu + wv * wv;
  }
  const known = square > 0 && re * re + im * im > 0;
  const [a, b] = known ? [re / square, im / square] : [1, 0];
  return uv.map((_, i) => {
    const wu = uv[i & ~1] - cu;
    const wv = uv[i | 1] - cv;
    return i & 1 ? pv + b * wu + a * wv : pu + a * wu - b * wv;
  });
}

/** Stays' places and the pins that lie on none of them. */
function both(lines: Pins, pins: Pins | undefined): Pins {
  const vertices = Array.from(lines.vertices);
  const uv = Array.from(lines.uv);
  const taken = new Set(vertices);
  for (let i = 0; pins && i < pins.vertices.length; i++) {
    if (taken.has(pins.vertices[i])) continue;
    vertices.push(pins.vertices[i]);
    uv.push(pins.uv[2 * i], pins.uv[2 * i + 1]);
  }
  return { vertices, uv };
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
