import { overlappingTriangles } from '../measure/overlap.ts';
import type { StopSignal } from '../progress.ts';
import { current, type HemDocument, shellsOf } from './document.ts';
import { flatTask } from './flatTask.ts';
import { shellBoxes } from './layout.ts';
import { isStacked, shellsInStacks } from './stacks.ts';

/** Most pairs of triangles that are looked for; beyond it the figure reads “at least”. */
export const OVERLAP_LIMIT = 10_000;

export interface FaceOverlaps {
  /** Faces that lie on each other, two a pair, the smaller first, in order. */
  readonly overlaps: Uint32Array;
  /** Whether there may be more pairs than these. */
  readonly atLeast: boolean;
}

/** What was found, all of it, and how shells lay then. */
export interface KnownOverlaps extends Pick<FaceOverlaps, 'overlaps'> {
  /** Of every corner. */
  readonly uv: Float64Array;
  /** 1 for each face of a shell that was stacked on another: what lay on each other there was left out. */
  readonly wasStacked: Uint8Array;
}

/** What is known of a document in which such faces were found. */
export function knownOverlaps(document: HemDocument, overlaps: Uint32Array): KnownOverlaps {
  const { faceShell } = shellsOf(document);
  const stacked = new Set(shellsInStacks(shellBoxes(document)));
  return {
    overlaps,
    uv: current(document).uv,
    wasStacked: Uint8Array.from(faceShell, (s) => (stacked.has(s) ? 1 : 0)),
  };
}

export interface FaceOverlapOptions {
  /** Spares looking at faces that lie as they did. */
  readonly known?: KnownOverlaps;
  readonly signal?: StopSignal;
}

/**
 * Faces that lie on each other in the flat, but for those of shells that are stacked exactly; a pair of faces counts once, however many of their
 * triangles meet.
 *
 * @throws StoppedError
 */
export function overlappingFaces(
  document: HemDocument,
  { known, signal }: FaceOverlapOptions = {},
): FaceOverlaps {
  const { flat, faceOf } = flatTask(document);
  const changed = known && changedFaces(document, known);
  const asked = changed && Uint8Array.from(faceOf, (f) => changed[f]);
  const { faceShell } = shellsOf(document);
  const boxes = shellBoxes(document);
  const areStacked = (f: number, g: number): boolean => {
    const [s, t] = [faceShell[f], faceShell[g]];
    const [one, other] = [boxes[s], boxes[t]];
    return s !== t && one !== undefined && other !== undefined && isStacked(one, other);
  };
  const { pairs: found, isCutShort } = overlappingTriangles(flat, {
    limit: OVERLAP_LIMIT,
    isMeant: (a, b) => areStacked(faceOf[a], faceOf[b]),
    asked,
    signal,
  });
  const pairs = new Map<string, readonly [number, number]>();
  const add = (a: number, b: number) => {
    if (a !== b) pairs.set(a < b ? `${a} ${b}` : `${b} ${a}`, a < b ? [a, b] : [b, a]);
  };
  for (let i = 0; i < found.length; i += 2) add(faceOf[found[i]], faceOf[found[i + 1]]);
  if (known && changed)
    for (let i = 0; i < known.overlaps.length; i += 2) {
      const [a, b] = [known.overlaps[i], known.overlaps[i + 1]];
      if (!changed[a] && !changed[b] && !areStacked(a, b)) add(a, b);
    }
  return {
    overlaps: Uint32Array.from([...pairs.values()].sort(([a, b], [c, d]) => a - c || b - d).flat()),
    atLeast: isCutShort,
  };
}

/** Faces of which a corner lies elsewhere than it did, or that were stacked: 1 each. Corners without a place count as lying where they did. */
function changedFaces(document: HemDocument, { uv: before, wasStacked }: KnownOverlaps): Uint8Array {
  const { faceStart } = document.model.mesh;
  const { uv } = current(document);
  const changed = wasStacked.slice();
  for (let f = 0; f < changed.length; f++)
    for (let i = 2 * faceStart[f]; i < 2 * faceStart[f + 1]; i++)
      if (!Object.is(before[i], uv[i])) changed[f] = 1;
  return changed;
}
