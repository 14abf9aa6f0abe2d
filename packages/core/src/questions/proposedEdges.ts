import { type HemDocument, plainDocument } from '../document/document.ts';
import type { FoundSymmetry } from '../jobs/symmetry.ts';
import type { ProposalOptions } from '../propose/proposeSeams.ts';
import type { View } from '../surface/viewExposure.ts';
import { acrossAxis } from '../symmetry/findSymmetry.ts';
import { type Exposures, exposuresOf } from './exposures.ts';
import type { QuestionContext } from './question.ts';

/** By what seams are to be symmetric: what is found, nothing, or across an axis. */
export const SYMMETRIES = ['auto', 'none', 'x', 'y', 'z'] as const;

export interface Wanted {
  readonly view: View;
  readonly symmetric: (typeof SYMMETRIES)[number];
  readonly options: ProposalOptions;
}

export interface ProposedEdges {
  readonly proposed: readonly number[];
  readonly exposures: Exposures;
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
  { view, symmetric, options }: Wanted,
  context: QuestionContext,
): Promise<ProposedEdges> {
  const { jobs } = context;
  const exposures = await exposuresOf(document, view, context);
  const wanted = symmetric === 'auto' ? ('mirror' as const) : symmetric !== 'none' && acrossAxis(symmetric);
  const symmetry = wanted
    ? await jobs.run('symmetry', { document: plainDocument(document), wanted }, context)
    : undefined;
  // Where the sides are triangulated differently half of the edges have no image, and cutting the others alone leaves slivers.
  const found = symmetry?.byPlace ? undefined : symmetry;
  const proposed = await jobs.run(
    'propose-seams',
    {
      document: plainDocument(document),
      shells,
      exposure: exposures.vertices,
      symmetry: found?.symmetry,
      options,
    },
    context,
  );
  return { proposed: Array.from(proposed), exposures, found };
}
