import { overlappingTriangles } from '../measure/overlap.ts';
import type { StopSignal } from '../progress.ts';
import type { HemDocument } from './document.ts';
import { flatTask } from './flatTask.ts';

/** Most pairs of triangles that are looked for; beyond it the figure reads “at least”. */
export const OVERLAP_LIMIT = 10_000;

/**
 * Faces that lie on each other in the flat, two a pair; a pair of faces counts once, however many of their triangles meet.
 *
 * @throws StoppedError
 */
export function overlappingFaces(document: HemDocument, signal?: StopSignal): Uint32Array {
  const { flat, faceOf } = flatTask(document);
  const pairs = overlappingTriangles(flat, OVERLAP_LIMIT, signal);
  const faces: number[] = [];
  const seen = new Set<string>();
  for (let i = 0; i < pairs.length; i += 2) {
    const [a, b] = [faceOf[pairs[i]], faceOf[pairs[i + 1]]].sort((p, q) => p - q);
    if (a === b || seen.has(`${a} ${b}`)) continue;
    seen.add(`${a} ${b}`);
    faces.push(a, b);
  }
  return Uint32Array.from(faces);
}
