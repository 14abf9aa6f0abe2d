import { type HemDocument, shellOf, topologyOf } from '../document/document.ts';
import { share } from '../progress.ts';
import { limbRings as ringsOf } from '../seams/limbRings.ts';
import type { Counterparts } from '../symmetry/counterparts.ts';
import type { Job } from './job.ts';

export interface LimbJob {
  readonly document: HemDocument;
  /** Shells by number. */
  readonly shells: readonly number[];
  /** Where given, every seam brings its image. */
  readonly pairs?: Counterparts;
}

/** Seams that cut limbs off, those of each limb by themselves. */
export const limbRings: Job<'limb-rings', LimbJob, readonly (readonly number[])[]> = {
  name: 'limb-rings',
  run({ document, shells, pairs }, context) {
    const topology = topologyOf(document.model);
    return shells.flatMap((s, i) =>
      ringsOf(
        { ...topology, seams: document.seams, shell: shellOf(document, s), pairs },
        share(context, i / shells.length, (i + 1) / shells.length),
      ),
    );
  },
};
