import { measureStretch } from '../measure/stretch.ts';
import { type Context, heedStop } from '../progress.ts';
import { relax } from '../relax/relax.ts';
import { borders } from '../surface/borders.ts';
import { cuttable } from '../surface/cutShell.ts';
import type { Shell } from '../surface/shell.ts';
import { type Method, unfoldShell } from '../unfold/unfold.ts';
import { singleCuts } from './singleCuts.ts';

/** A cut helps when it leaves less than this part of the stretch. */
const HELPS = 0.99;

export interface BestCut {
  /** Two shell vertices an edge, from one end of the cut to the other. */
  readonly edges: Uint32Array;
  /** Of the shell laid flat anew along the cut. */
  readonly l2: number;
  readonly angleMean: number;
}

export interface BestCutOptions {
  readonly method?: Method;
  /** Steps of relaxing after the unfold. */
  readonly relaxSteps?: number;
}

/**
 * The single cut after which a shell stretches least, with its stretch: each of `singleCuts` is made and the shell laid flat along it,
 * so what is told is no guess but what comes out.
 *
 * @returns undefined where no cut lowers the stretch of the shell as it is
 * @throws StoppedError
 */
export function bestCut(
  shell: Shell,
  context: Context,
  { method = 'conformal', relaxSteps = 0 }: BestCutOptions = {},
): BestCut | undefined {
  const { loops } = borders(shell.triangles, shell.positions.length / 3);
  const { mesh, links, cut } = cuttable(shell);
  const flattened = (piece: Shell): Float64Array => unfoldShell(piece, method, silent).uv;
  const silent: Context = { signal: context.signal, report: () => undefined };
  const cuts = singleCuts(mesh, links, shell.triangles, loops, context.signal);
  let best:
    | { readonly piece: Shell; readonly uv: Float64Array; readonly edges: readonly number[] }
    | undefined;
  let least = measureStretch(shell, flattened(shell)).l2;
  cuts.forEach((edges, i) => {
    heedStop(context.signal);
    context.report({ fraction: (i + 1) / (cuts.length + 1) });
    const piece = cut(edges);
    if (!piece) return;
    const uv = flattened(piece);
    const { l2 } = measureStretch(piece, uv);
    if (!(l2 < HELPS * least)) return;
    least = l2;
    best = { piece, uv, edges };
  });
  if (!best) return undefined;
  const uv = relaxSteps > 0 ? relax(best.piece, best.uv, { steps: relaxSteps }, silent).uv : best.uv;
  const { l2, angleMean } = measureStretch(best.piece, uv);
  const edges = Uint32Array.from(
    best.edges.flatMap((e) => [links.edgeVertices[2 * e], links.edgeVertices[2 * e + 1]]),
  );
  return { edges, l2, angleMean };
}
