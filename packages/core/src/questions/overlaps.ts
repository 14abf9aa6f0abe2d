import { flatTask } from '../document/flatTask.ts';
import { OVERLAP_LIMIT } from '../jobs/overlaps.ts';
import { record } from '../params.ts';
import { question } from './question.ts';

/** Faces that lie on each other in the flat. */
export interface Overlaps {
  /** Two a pair. */
  readonly faces: Uint32Array;
  /** Whether there may be more pairs than these. */
  readonly atLeast: boolean;
}

export const overlaps = question({
  name: 'overlaps',
  params: record({}),
  background: true,
  async answer(document, _, context): Promise<Overlaps> {
    const faces = await context.jobs.run('overlaps', flatTask(document), context);
    return { faces, atLeast: faces.length / 2 >= OVERLAP_LIMIT };
  },
});
