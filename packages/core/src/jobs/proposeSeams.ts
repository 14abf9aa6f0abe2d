import { type HemDocument, shellsOf, topologyOf } from '../document/document.ts';
import { type ProposalOptions, proposeSeams as propose } from '../propose/proposeSeams.ts';
import type { Symmetry } from '../symmetry/findSymmetry.ts';
import type { Job } from './job.ts';

export interface ProposalJob {
  readonly document: HemDocument;
  /** Shells by number; all when absent. */
  readonly shells?: readonly number[];
  readonly visibility: Float32Array;
  readonly symmetry?: Symmetry;
  readonly options: ProposalOptions;
}

/** Edges to cut so that shells lie flat with little stretch. */
export const proposeSeams: Job<'propose-seams', ProposalJob, Uint32Array> = {
  name: 'propose-seams',
  run({ document, shells, visibility, symmetry, options }, context) {
    const all = Array.from({ length: shellsOf(document).shellCount }, (_, s) => s);
    const task = {
      ...topologyOf(document.model),
      seams: document.seams,
      shells: shells ?? all,
      visibility,
      symmetry,
    };
    return Uint32Array.from(propose(task, options, context));
  },
};
