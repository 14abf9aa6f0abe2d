import { measureStretch } from '../measure/stretch.ts';
import { type Context, heedStop } from '../progress.ts';
import { relax } from '../relax/relax.ts';
import { borders } from '../surface/borders.ts';
import { likeShell } from '../surface/coarseSurface.ts';
import { cuttable } from '../surface/cutShell.ts';
import type { Shell } from '../surface/shell.ts';
import { type Method, unfoldShell } from '../unfold/unfold.ts';
import { singleCuts } from './singleCuts.ts';

/** A cut helps when it leaves less than this part of the stretch. */
const HELPS = 0.99;
/** Larger shells are told of by coarser ones: laid flat a dozen times as they are, they would take minutes. */
const MOST_TRIANGLES = 10_000;
const ENOUGH_TRIANGLES = 5000;

export interface BestCut {
  /** Two shell vertices an edge, from one end of the cut to the other. */
  readonly edges: Uint32Array;
  /** Of the shell laid flat anew along the cut. */
  readonly l2: number;
  readonly angleMean: number;
  /** Whether the figures are those of a coarser shell. */
  readonly isRough: boolean;
}

export interface BestCutOptions {
  readonly method?: Method;
  /** Steps of relaxing after the unfold. */
  readonly relaxSteps?: number;
  /** How much is seen of every vertex of the shell, 0 to 1: of cuts that help about as much the one that shows least is the best. */
  readonly visibility?: Float32Array;
}

/**
 * The single cut after which a shell stretches least, with its stretch: each of `singleCuts` is made and the shell laid flat along it,
 * so what is told is no guess but what comes out. Of more than 10 000 triangles a coarser shell is laid flat, cut alike.
 *
 * @returns undefined where no cut lowers the stretch of the shell as it is
 * @throws StoppedError
 */
export function bestCut(shell: Shell, context: Context, options: BestCutOptions = {}): BestCut | undefined {
  const { loops } = borders(shell.triangles, shell.positions.length / 3);
  const knife = cuttable(shell);
  const cuts = singleCuts(knife.mesh, knife.connectivity, shell.triangles, loops, context.signal);
  return triedCuts(shell, knife, cuts, 1, context, options)[0];
}

/**
 * Makes each of some cuts, and tells of those that help, the best first.
 *
 * @param cuts  edges of each
 * @param most  how many are told of
 * @throws StoppedError
 */
export function triedCuts(
  shell: Shell,
  { connectivity, cut }: ReturnType<typeof cuttable>,
  cuts: readonly (readonly number[])[],
  most: number,
  context: Context,
  { method = 'conformal', relaxSteps = 0, visibility }: BestCutOptions = {},
): BestCut[] {
  const silent: Context = { signal: context.signal, report: () => undefined };
  const isRough = shell.triangles.length > 3 * MOST_TRIANGLES;
  const tryable = (piece: Shell): Shell =>
    isRough ? likeShell(piece, ENOUGH_TRIANGLES, context.signal) : piece;
  const flattened = (piece: Shell): Float64Array => unfoldShell(piece, method, silent).uv;
  const uncut = tryable(shell);
  const now = measureStretch(uncut, flattened(uncut)).l2;
  const tried: {
    readonly piece: Shell;
    readonly uv: Float64Array;
    readonly edges: readonly number[];
    readonly l2: number;
    readonly price: number;
  }[] = [];
  /** How much is seen of a cut on the mean of its vertices, 0 to 1; a cut that shows wholly counts as if it left twice the stretch. */
  const seenOf = (edges: readonly number[]): number => {
    if (!visibility || edges.length === 0) return 0;
    let sum = 0;
    for (const e of edges)
      sum += visibility[connectivity.edgeVertices[2 * e]] + visibility[connectivity.edgeVertices[2 * e + 1]];
    return sum / (2 * edges.length);
  };
  cuts.forEach((edges, i) => {
    heedStop(context.signal);
    context.report({ fraction: (i + 1) / (cuts.length + 1) });
    const whole = cut(edges);
    if (!whole) return;
    const piece = tryable(whole);
    const uv = flattened(piece);
    const { l2 } = measureStretch(piece, uv);
    if (l2 < HELPS * now) tried.push({ piece, uv, edges, l2, price: (l2 - 1) * (1 + seenOf(edges)) });
  });
  return tried
    .sort((a, b) => a.price - b.price)
    .slice(0, most)
    .map(({ piece, uv, edges }) => {
      const relaxed = relaxSteps > 0 ? relax(piece, uv, { steps: relaxSteps }, silent).uv : uv;
      const { l2, angleMean } = measureStretch(piece, relaxed);
      const ends = edges.flatMap((e) => [
        connectivity.edgeVertices[2 * e],
        connectivity.edgeVertices[2 * e + 1],
      ]);
      return { edges: Uint32Array.from(ends), l2, angleMean, isRough };
    })
    .sort((a, b) => a.l2 - b.l2);
}
