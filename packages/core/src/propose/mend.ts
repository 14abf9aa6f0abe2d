import { findEdge } from '../mesh/connectivity.ts';
import { type Context, heedStop } from '../progress.ts';
import { RELAX_STEPS } from '../relax/steps.ts';
import { bestCut } from '../seams/bestCut.ts';
import type { CoarseSurface } from '../surface/coarseSurface.ts';
import { shellFromTriangles } from '../surface/shell.ts';
import { isStretched } from './layFlat.ts';

/** On larger shells a single cut takes long to find, and rarely does. */
const MOST_FOR_DARTS = 3000;

/** What a shell wants to lie flat as well as is asked for: nothing, a cut along some edges of its surface, or to be cut up anew. */
export type Mending = { readonly edges: readonly number[] } | 'anew' | undefined;

/**
 * Judges a shell as it lies flat clear of itself, and where it stretches finds the one dart that helps most.
 *
 * @param most  L2 stretch that is asked for
 * @throws StoppedError
 */
export function mending({ mesh, connectivity }: CoarseSurface, most: number, context: Context): Mending {
  heedStop(context.signal);
  const shell = shellFromTriangles(mesh.positions, mesh.cornerVertex);
  const found = isStretched(shell, { most, relaxSteps: RELAX_STEPS }, context.signal);
  if (found === false) return undefined;
  if (found === undefined || shell.triangles.length > 3 * MOST_FOR_DARTS) return 'anew';
  const dart = bestCut(
    shell,
    { signal: context.signal, report: () => undefined },
    { relaxSteps: RELAX_STEPS },
  );
  if (!dart || dart.l2 > most) return 'anew';
  return {
    edges: Array.from({ length: dart.edges.length / 2 }, (_, i) =>
      findEdge(connectivity, dart.edges[2 * i], dart.edges[2 * i + 1]),
    ),
  };
}
