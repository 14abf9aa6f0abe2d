import type { HemDocument } from '../document/document.ts';
import { nearShells } from '../document/nearShells.ts';
import { type FaceOverlaps, type KnownOverlaps, overlappingFaces } from '../document/overlappingFaces.ts';
import { inspect } from '../inspect/inspect.ts';
import type { LayoutFinding } from '../inspect/inspection.ts';
import { subjectOf } from '../inspect/subject.ts';
import type { Job } from './job.ts';

/** How shells lie together, and what is wrong with it. */
export interface LayoutReport extends FaceOverlaps {
  /** Pairs of shells nearer to one another than the padding, two numbers a pair. */
  readonly near: Uint32Array;
  readonly findings: readonly LayoutFinding[];
}

export interface InspectTask {
  readonly document: HemDocument;
  readonly known?: KnownOverlaps;
}

export const inspectLayout: Job<'inspect', InspectTask, LayoutReport> = {
  name: 'inspect',
  run({ document, known }, { signal }) {
    const lapped = overlappingFaces(document, { known, signal });
    const near = nearShells(document, signal);
    const subject = subjectOf(document, lapped.overlaps, near, lapped.atLeast);
    return {
      ...lapped,
      near,
      findings: inspect(subject, { signal }),
    };
  },
};
