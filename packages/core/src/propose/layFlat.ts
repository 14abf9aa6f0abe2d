import { HemError } from '../errors.ts';
import { NotPositiveDefiniteError } from '../linear/cholesky.ts';
import { measureStretch } from '../measure/stretch.ts';
import { type Context, heedStop } from '../progress.ts';
import { liesOnItself, unfoldOverlapFree } from '../relax/overlapFree.ts';
import { MOST_WORSE, type Relaxed, relax } from '../relax/relax.ts';
import { RELAX_STEPS } from '../relax/steps.ts';
import { areaOfTriangle } from '../surface/areas.ts';
import { borders } from '../surface/borders.ts';
import { triangleArea } from '../surface/flatArea.ts';
import { restTriangles } from '../surface/restTriangles.ts';
import type { Shell } from '../surface/shell.ts';
import { keepsArea } from '../unfold/nearlyClosed.ts';
import { spectralConformal } from '../unfold/spectral.ts';
import { unfoldShell } from '../unfold/unfold.ts';

/** One shell as it would lie flat. */
export interface Flat {
  /** Area times what L2 squared has above 1. */
  readonly strain: number;
  readonly l2: number;
}

export interface LayFlatOptions {
  /** L2 stretch that it may not exceed. */
  readonly most: number;
  readonly relaxSteps: number;
}

/** A conformal map that stretches this many times more than is allowed, beyond 1, will not be relaxed to it. */
const HOPELESS = 6;
/** Shells of fewer triangles are relaxed for so many times the steps. */
const SMALL = 500;
const CARE = 4;
/** One that stretches less than this part of it needs no relaxing to be judged. */
const WELL = 0.3;

/**
 * Lays a disc flat for a judgement: conformally, then relaxed for some steps where it stretches.
 *
 * @returns undefined where it stretches more than is allowed, or lies on itself
 * @throws StoppedError
 */
export function layFlat(
  shell: Shell,
  { most, relaxSteps }: LayFlatOptions,
  signal: Context['signal'],
): Flat | undefined {
  return unlessImpossible(() => {
    let uv = conformal(shell, signal);
    let stretch = measureStretch(shell, uv);
    if (stretch.flipped + stretch.collapsed > 0 || stretch.l2 > 1 + HOPELESS * (most - 1)) return undefined;
    if (liesOnItself(shell, uv)) return undefined;
    if (stretch.l2 > 1 + WELL * (most - 1)) {
      // Small ones cost little, and are worth to be judged with care.
      const steps = shell.triangles.length < 3 * SMALL ? CARE * relaxSteps : relaxSteps;
      ({ uv } = relax(shell, uv, { steps, tolerance: 1e-3 }, { signal, report: () => undefined }));
      stretch = measureStretch(shell, uv);
      if (stretch.l2 > most || liesOnItself(shell, uv)) return undefined;
    }
    return { strain: stretch.area * (stretch.l2 ** 2 - 1), l2: stretch.l2 };
  });
}

/** A shell unfolded and relaxed, as it is once a proposal is cut. */
export function laidOut(shell: Shell, signal: Context['signal']): Relaxed {
  const context: Context = { signal, report: () => undefined };
  // Where the plain map will not do, unfolding takes long, and from a disc the map comes out the same; where it would not be taken for its stretch, it shows.
  const direct = isPlain(shell, signal) ? undefined : unfoldOverlapFree(shell, {}, context);
  heedStop(signal);
  if (direct) {
    const free = relax(shell, direct.uv, { steps: RELAX_STEPS }, context);
    if (direct.energyAfter <= MOST_WORSE * free.energyAfter) return { ...direct, onItself: 'no' };
  }
  const { uv } = unfoldShell(shell, 'conformal', context);
  return relax(shell, uv, { steps: RELAX_STEPS, clear: 'anew' }, context);
}

/** Whether a shell is laid flat by its plain conformal map, with no flip and nothing shrunk to nothing. */
function isPlain(shell: Shell, signal: Context['signal']): boolean {
  const { triangles, positions } = shell;
  const found = unlessImpossible(() => {
    const uv = conformal(shell, signal);
    const { flipped, collapsed } = measureStretch(shell, uv);
    return (
      flipped + collapsed === 0 && keepsArea({ triangles, rest: restTriangles(positions, triangles) }, uv)
    );
  });
  return found === true;
}

/**
 * Whether a disc stretches more than is allowed once it lies flat, relaxed and clear of itself.
 *
 * @returns undefined where it cannot be laid flat at all
 * @throws StoppedError
 */
export function isStretched(
  shell: Shell,
  { most, relaxSteps }: LayFlatOptions,
  signal: Context['signal'],
): boolean | undefined {
  return unlessImpossible(() => {
    const first = conformal(shell, signal);
    const before = measureStretch(shell, first);
    const flips = before.flipped + before.collapsed > 0;
    const isWell = !flips && before.l2 < 1 + WELL * (most - 1);
    if (isWell && !liesOnItself(shell, first)) return false;
    const context: Context = { signal, report: () => undefined };
    const direct = flips ? unfoldOverlapFree(shell, {}, context) : undefined;
    heedStop(signal);
    if (direct) return measureStretch(shell, direct.uv).l2 > most;
    const start = flips ? unfoldShell(shell, 'conformal', context).uv : first;
    const found = relax(shell, start, { steps: relaxSteps, tolerance: 1e-3, clear: 'anew' }, context);
    // What was stopped on the way tells nothing.
    heedStop(signal);
    return found.onItself === 'yes' || measureStretch(shell, found.uv).l2 > most;
  });
}

/**
 * How much smaller a disc is in the flat, place by place, when it is laid flat conformally: the logarithm of surface over flat area at every vertex. It is
 * greatest at the ends of what sticks out, which cuts have to reach (Ben-Chen, Gotsman, Bunin 2008; Springborn, Schröder, Pinkall 2008).
 *
 * @returns undefined where it cannot be laid flat at all
 * @throws StoppedError
 */
export function conformalShrinking(shell: Shell, signal: Context['signal']): Float64Array | undefined {
  return unlessImpossible(() => {
    const uv = conformal(shell, signal);
    const { triangles, positions } = shell;
    const [surface, flat] = [new Float64Array(positions.length / 3), new Float64Array(positions.length / 3)];
    for (let t = 0; 3 * t < triangles.length; t++) {
      const corners = triangles.subarray(3 * t, 3 * t + 3);
      const area = areaOfTriangle(positions, corners[0], corners[1], corners[2]);
      const laid = Math.abs(triangleArea(triangles, uv, t));
      for (const v of corners) {
        surface[v] += area;
        flat[v] += laid;
      }
    }
    return surface.map((area, v) => Math.log(Math.max(area, 1e-300) / Math.max(flat[v], 1e-300)));
  });
}

function conformal({ positions, triangles }: Shell, signal: Context['signal']): Float64Array {
  const { loops } = borders(triangles, positions.length / 3);
  return spectralConformal({ positions, triangles }, restTriangles(positions, triangles), loops, signal);
}

function unlessImpossible<T>(work: () => T | undefined): T | undefined {
  try {
    return work();
  } catch (error) {
    const isHopeless = error instanceof HemError && error.code !== 'stopped';
    if (isHopeless || error instanceof NotPositiveDefiniteError) return undefined;
    throw error;
  }
}
