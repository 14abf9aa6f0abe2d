import type { HemDocument } from '../document/document.ts';
import { nearShells } from '../document/nearShells.ts';
import { OVERLAP_LIMIT, overlappingFaces } from '../document/overlappingFaces.ts';
import { inspect } from '../inspect/inspect.ts';
import type { LayoutFinding } from '../inspect/inspection.ts';
import { type InspectOptions, subjectOf } from '../inspect/subject.ts';
import type { Job } from './job.ts';

/** How shells lie together, and what is wrong with it. */
export interface LayoutReport {
  /** Faces that lie on each other, two a pair. */
  readonly overlaps: Uint32Array;
  /** Whether there may be more pairs than these. */
  readonly atLeast: boolean;
  /** Pairs of shells nearer to one another than the padding, two numbers a pair. */
  readonly near: Uint32Array;
  readonly findings: readonly LayoutFinding[];
}

export interface InspectTask {
  readonly document: HemDocument;
  readonly options: InspectOptions;
}

export const inspectLayout: Job<'inspect', InspectTask, LayoutReport> = {
  name: 'inspect',
  run({ document, options }, { signal }) {
    const overlaps = overlappingFaces(document, signal);
    const near = nearShells(document, options.padding / options.texture, signal);
    return {
      overlaps,
      atLeast: overlaps.length / 2 >= OVERLAP_LIMIT,
      near,
      findings: inspect(subjectOf(document, overlaps, near, options), { signal }),
    };
  },
};
