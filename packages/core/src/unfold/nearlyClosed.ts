import { HemError } from '../errors.ts';
import { NotPositiveDefiniteError } from '../linear/cholesky.ts';
import { type Context, heedStop } from '../progress.ts';
import { discMetric } from '../relax/discMetric.ts';
import { boundedConformal, dirichletParts } from '../relax/distortion.ts';
import { freeTriangles, pickTriangles } from '../relax/freeTriangles.ts';
import { heldFarFrom } from '../relax/heldFarFrom.ts';
import { progressiveEmbedding } from '../relax/progressive.ts';
import { projectedNewton } from '../relax/projectedNewton.ts';
import { invertedTriangles, removeInversions } from '../relax/removeInversions.ts';
import { withGuards } from '../relax/withGuards.ts';
import { anyDiagonal, type WeightedTriangles } from '../surface/anyDiagonal.ts';
import { signedArea, triangleArea } from '../surface/flatArea.ts';
import type { RestTriangles } from '../surface/restTriangles.ts';
import type { Shell } from '../surface/shell.ts';
import { isLocallyInjective } from './isLocallyInjective.ts';
import { spectralConformal } from './spectral.ts';

/** Area may be so many times less or more than its due before it counts beside angles. */
export const AREA_BOUND = 50;
/** A map of which more than this part is beyond the bound shrinks too much to be painted. */
const MOST_BEYOND = 0.01;
/** Least area of a triangle of a start, as a part of its due: the map is not yet what will be seen. */
const LEAST = 1e-10;
/** What the triangles that must only not flip count, as a part of the map. */
const GUARD = 0.01;
const CONVERGED = { steps: 200, tolerance: 1e-3 };

/** No valid map was found: numbers ran out. */
export class NoValidMapError extends HemError {
  constructor() {
    super('no-valid-map', 'This shell could not be laid flat without flipped faces: cut it further.');
    this.name = 'NoValidMapError';
  }
}

/** Whether a map keeps area within the bound nearly everywhere. */
export function keepsArea({ triangles, rest }: WeightedTriangles, uv: Float64Array): boolean {
  const unit = signedArea(triangles, uv) / rest.totalArea;
  let beyond = 0;
  for (let t = 0; t < rest.area.length; t++) {
    const factor = triangleArea(triangles, uv, t) / (unit * 0.5 * rest.local[3 * t] * rest.local[3 * t + 2]);
    if (!(factor * 2 * AREA_BOUND > 1)) beyond += rest.area[t];
  }
  return beyond <= MOST_BEYOND * rest.totalArea;
}

/**
 * The best conformal map of a shell whose plain conformal map has flips or shrinks its far part to nothing, as that of a horn, a glove or a head with only
 * the neck open: the least conformal energy with no flip and area bounded (`boundedConformal`), by projected Newton from a
 * valid start: a conformal map of the shell in its disc metric, and where that has flips, a progressive embedding, which cannot have any.
 *
 * @param own  the triangles of the shell
 * @param target  what angles are told from
 * @param every  its triangles under any diagonal
 * @throws NoValidMapError, StoppedError
 */
export function nearlyClosed(
  shell: Shell,
  own: WeightedTriangles,
  every: WeightedTriangles,
  target: WeightedTriangles,
  loops: readonly Uint32Array[],
  onBorder: Uint8Array,
  context: Context,
): Float64Array {
  const isStart = (uv: Float64Array | undefined): uv is Float64Array =>
    uv !== undefined && isLocallyInjective(shell.triangles, uv, own.rest.area, onBorder, LEAST);
  const term = boundedConformal(AREA_BOUND);
  const none = new Uint8Array(onBorder.length);
  const starts = [
    () => inDiscMetric(shell, own, every, loops, none, context),
    () => progressiveEmbedding(shell, own.rest, term, context),
    // Where sizes on the surface are hopeless, as in crumpled scans, its connectivity still can be laid flat.
    () => progressiveEmbedding(shell, regular(own.rest.area.length), undefined, context),
  ];
  let start: Float64Array | undefined;
  for (let i = 0; i < starts.length && !isStart(start); i++) start = starts[i]();
  if (!isStart(start)) throw new NoValidMapError();
  // What is concave on the surface need not be in the flat.
  const guards = shell.polygons ? anyDiagonal(shell, true) : own;
  const guarded = shell.polygons ? withGuards(target, guards, GUARD) : target;
  /** The least of the energy near a map, with the polygons that it folds left out. */
  const settled = (whole: WeightedTriangles, from: Float64Array, fixed?: Uint8Array): Float64Array => {
    const inverted = new Set(invertedTriangles(whole, from, 0));
    const part = pickTriangles(whole, (t) => !inverted.has(t));
    const { stretch, shrink } = dirichletParts(part.triangles, part.rest, from);
    const scale = fixed ? 1 : (shrink / stretch) ** 0.25;
    const sized = from.map((x) => x * scale);
    const free = fixed ? freeTriangles(part, fixed) : part;
    const settling = projectedNewton(free, sized, { term, fixed, ...CONVERGED }, context);
    heedStop(context.signal);
    return settling.uv;
  };
  // First by the triangles alone, of which there are half as many as ways to split the polygons.
  const plain = target === every ? own : target;
  const first = settled(guarded, shell.polygons ? settled(plain, start) : start);
  // Removing inversions is gentle near the least, and far from it may tear the map: so first there, and what it tears is settled again, from near to far.
  const repaired =
    removeInversions(guards, first, none, context, false) ?? removeInversions(every, first, none, context);
  const found =
    repaired && repaired !== first
      ? settled(guarded, settled(guarded, repaired, heldFarFrom(shell.triangles, first, repaired, none)))
      : first;
  for (const last of [found, first, start]) if (isStart(last)) return last;
  throw new NoValidMapError();
}

/** Triangles all of whose sides are 1. */
function regular(count: number): RestTriangles {
  const [x3, y3] = [0.5, Math.sqrt(0.75)];
  const local = Float64Array.from({ length: 3 * count }, (_, i) => [1, x3, y3][i % 3]);
  return { local, area: new Float64Array(count).fill(0.5 * y3), totalArea: 0.5 * y3 * count };
}

function inDiscMetric(
  shell: Shell,
  own: WeightedTriangles,
  { triangles, rest }: WeightedTriangles,
  loops: readonly Uint32Array[],
  none: Uint8Array,
  context: Context,
): Float64Array | undefined {
  try {
    const { positions } = shell;
    const metric = discMetric(positions, triangles, rest, loops, context.signal);
    const uv = spectralConformal({ positions, triangles }, metric, loops, context.signal);
    if (invertedTriangles(own, uv, LEAST).length > 0.002 * own.rest.area.length) return undefined;
    return removeInversions(own, uv, none, context, false);
  } catch (error) {
    if (error instanceof NotPositiveDefiniteError) return undefined;
    throw error;
  }
}
