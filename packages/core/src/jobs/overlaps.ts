import type { FlatTask } from '../document/flatTask.ts';
import { overlappingTriangles } from '../measure/overlap.ts';
import type { Job } from './job.ts';

/** Most pairs that are counted; beyond it the figure reads “at least”. */
export const OVERLAP_LIMIT = 10_000;

/** Faces that lie on each other, two a pair; a pair of faces counts once, however many of their triangles meet. */
export const overlaps: Job<'overlaps', FlatTask, Uint32Array> = {
  name: 'overlaps',
  run({ flat, faceOf }, context) {
    const pairs = overlappingTriangles(flat, OVERLAP_LIMIT, context.signal);
    const faces: number[] = [];
    const seen = new Set<string>();
    for (let i = 0; i < pairs.length; i += 2) {
      const [a, b] = [faceOf[pairs[i]], faceOf[pairs[i + 1]]].sort((p, q) => p - q);
      if (a === b || seen.has(`${a} ${b}`)) continue;
      seen.add(`${a} ${b}`);
      faces.push(a, b);
    }
    return Uint32Array.from(faces);
  },
};
