import { findEdge } from '../mesh/connectivity.ts';
import { type Context, heedStop } from '../progress.ts';
import { bestCut } from '../seams/bestCut.ts';
import type { CoarseSurface } from '../surface/coarseSurface.ts';
import { cuttable } from '../surface/cutShell.ts';
import { shellFromTriangles } from '../surface/shell.ts';
import { type FlatFaults, flatFaults } from './layFlat.ts';
import { separatingCut } from './separatingCut.ts';

/** Steps of relaxing when a shell is judged as it is going to lie. */
const RELAX_STEPS = 20;
/** Overlaps of so few triangles, as a part of all, are left where no cut parts them. */
const FEW = 0.03;
/** On larger shells a single cut takes long to find, and rarely does. */
const MOST_FOR_DARTS = 3000;

/** What a shell wants to lie flat as well as is asked for: nothing, a cut along some edges of its surface, or to be cut up anew. */
export type Mending = { readonly edges: readonly number[] } | 'anew' | undefined;

/**
 * Judges a shell, and finds the one cut that helps most: apart where it lies on itself, or a dart where it stretches.
 *
 * @param costs  what a cut along each edge of the surface costs
 * @param most  L2 stretch that is asked for
 * @throws StoppedError
 */
export function mending(
  { mesh, links }: CoarseSurface,
  costs: Float64Array,
  most: number,
  context: Context,
): Mending {
  heedStop(context.signal);
  const shell = shellFromTriangles(mesh.positions, mesh.cornerVertex);
  const faults = flatFaults(shell, { most, relaxSteps: RELAX_STEPS }, context.signal);
  if (!faults) return 'anew';
  if (isFaultless(faults)) return undefined;
  if (faults.overlaps.length > 0) {
    const edges = separatingCut(shell, cuttable(shell), faults.overlaps, (e) => costs[e]);
    if (edges.length > 0) return { edges };
    // Cut up anew, it would have far more seam for a few triangles that fold over each other at a border.
    if (!faults.isStretched && faults.overlaps.length <= FEW * shell.triangles.length) return undefined;
  }
  if (!faults.isStretched || shell.triangles.length > 3 * MOST_FOR_DARTS) return 'anew';
  const dart = bestCut(
    shell,
    { signal: context.signal, report: () => undefined },
    { relaxSteps: RELAX_STEPS },
  );
  if (!dart || dart.l2 > most) return 'anew';
  return {
    edges: Array.from({ length: dart.edges.length / 2 }, (_, i) =>
      findEdge(links, dart.edges[2 * i], dart.edges[2 * i + 1]),
    ),
  };
}

const isFaultless = ({ isStretched, overlaps }: FlatFaults): boolean => !isStretched && overlaps.length === 0;
