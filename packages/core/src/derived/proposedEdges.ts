import { type HemDocument, plainDocument, shellsOf } from '../document/document.ts';
import type { Jobs } from '../jobs/index.ts';
import type { FoundSymmetry } from '../jobs/symmetry.ts';
import { type Context, share } from '../progress.ts';
import type { ProposalOptions } from '../propose/proposeSeams.ts';
import { shellsWhere } from '../surface/shells.ts';
import type { View } from '../surface/visibility.ts';
import { acrossAxis } from '../symmetry/findSymmetry.ts';
import { type Visibility, visibilityOf } from './visibility.ts';

/** By what seams are to be symmetric: what is found, nothing, or across an axis. */
export const SYMMETRIES = ['auto', 'none', 'x', 'y', 'z'] as const;

/** Parts of the work that are done once it is known what is seen, what is symmetric, and where limbs end. */
const [SEEN, MIRRORED, LIMBS] = [0.1, 0.15, 0.25];

export interface Wanted {
  readonly view: View;
  readonly symmetric: (typeof SYMMETRIES)[number];
  /** Whether limbs are cut off first. */
  readonly limbs?: boolean;
  readonly options: ProposalOptions;
}

export interface ProposedEdges {
  readonly proposed: readonly number[];
  readonly visibility: Visibility;
  readonly found: FoundSymmetry | undefined;
}

/**
 * Seams proposed for some shells, by number, in addition to those that are there.
 *
 * @throws StoppedError when it was stopped before there were any
 */
export async function proposedEdges(
  document: HemDocument,
  shells: readonly number[],
  { view, symmetric, limbs = false, options }: Wanted,
  context: Context & { readonly jobs: Jobs },
): Promise<ProposedEdges> {
  const { jobs } = context;
  const within = (from: number, to: number) => ({ jobs, ...share(context, from, to) });
  const visibility = await visibilityOf(document, view, within(0, SEEN));
  const wanted = symmetric === 'auto' ? ('mirror' as const) : symmetric !== 'none' && acrossAxis(symmetric);
  const symmetry = wanted
    ? await jobs.run('symmetry', { document: plainDocument(document), wanted }, within(SEEN, MIRRORED))
    : undefined;
  // Where the sides are triangulated differently half of the edges have no image, and cutting the others alone leaves slivers.
  const found = symmetry?.byPlace ? undefined : symmetry;
  const rings = limbs
    ? await jobs.run(
        'limb-rings',
        { document: plainDocument(document), shells, pairs: found },
        within(MIRRORED, LIMBS),
      )
    : [];
  const off = rings.flat();
  const parted = cutAt(document, off);
  const own = shellsOf(document).faceShell;
  const wantedShells = new Set(shells);
  const map = shellsOf(parted);
  const proposed = await jobs.run(
    'propose-seams',
    {
      document: plainDocument(parted),
      shells: shellsWhere(map, (f) => wantedShells.has(own[f])),
      visibility: visibility.vertices,
      symmetry: found?.symmetry,
      options,
    },
    within(limbs ? LIMBS : MIRRORED, 1),
  );
  return { proposed: [...off, ...proposed], visibility, found };
}

/** A document with more seams. */
export function cutAt(document: HemDocument, edges: readonly number[]): HemDocument {
  if (edges.length === 0) return document;
  const seams = document.seams.slice();
  for (const e of edges) seams[e] = 1;
  return { ...document, seams };
}
