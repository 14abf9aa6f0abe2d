import { overlappingTriangles } from '../measure/overlap.ts';
import type { Mesh } from '../mesh/mesh.ts';
import type { StopSignal } from '../progress.ts';
import type { HemDocument } from './document.ts';
import { flatTask } from './flatTask.ts';

/** Most pairs of triangles that are looked for; beyond it the figure reads “at least”. */
export const OVERLAP_LIMIT = 10_000;

export interface FaceOverlaps {
  /** Faces that lie on each other, two a pair, the smaller first, in order. */
  readonly overlaps: Uint32Array;
  /** Whether there may be more pairs than these. */
  readonly atLeast: boolean;
}

/** What was found, all of it, before some faces moved. */
export interface KnownOverlaps extends Pick<FaceOverlaps, 'overlaps'> {
  /** 1 for each face that has moved since. */
  readonly moved: Uint8Array;
}

export interface FaceOverlapOptions {
  /** Spares looking at faces that lie as they did. */
  readonly known?: KnownOverlaps;
  readonly signal?: StopSignal;
}

/**
 * Faces that lie on each other in the flat; a pair of faces counts once, however many of their triangles meet.
 *
 * @throws StoppedError
 */
export function overlappingFaces(
  document: HemDocument,
  { known, signal }: FaceOverlapOptions = {},
): FaceOverlaps {
  const { flat, faceOf } = flatTask(document);
  const asked = known && Uint8Array.from(faceOf, (f) => known.moved[f]);
  const found = overlappingTriangles(flat, { limit: OVERLAP_LIMIT, asked, signal });
  const pairs = new Map<string, readonly [number, number]>();
  const add = (a: number, b: number) => {
    if (a !== b) pairs.set(a < b ? `${a} ${b}` : `${b} ${a}`, a < b ? [a, b] : [b, a]);
  };
  for (let i = 0; i < found.length; i += 2) add(faceOf[found[i]], faceOf[found[i + 1]]);
  if (known)
    for (let i = 0; i < known.overlaps.length; i += 2) {
      const [a, b] = [known.overlaps[i], known.overlaps[i + 1]];
      if (!known.moved[a] && !known.moved[b]) add(a, b);
    }
  return {
    overlaps: Uint32Array.from([...pairs.values()].sort(([a, b], [c, d]) => a - c || b - d).flat()),
    atLeast: found.length / 2 >= OVERLAP_LIMIT,
  };
}

/** Faces of which a corner lies elsewhere than it did: 1 each. Corners without a place count as lying where they did. */
export function movedFaces({ faceStart }: Mesh, before: Float64Array, now: Float64Array): Uint8Array {
  const moved = new Uint8Array(faceStart.length - 1);
  for (let f = 0; f < moved.length; f++)
    for (let i = 2 * faceStart[f]; i < 2 * faceStart[f + 1]; i++)
      if (!Object.is(before[i], now[i])) moved[f] = 1;
  return moved;
}
