import { type SegmentIndex, segmentIndex } from '@blunt-hem/core/measure/snapToBorders';
import { type FlatBuffers, type ModelBuffers, NO_UV, NOWHERE } from '../../worker/protocol.ts';

/** Borders of shells on the Board as a hand meets them. */
export interface HeldBorders {
  /** u and v of both ends of the segments that move, those nearest to the hand. */
  readonly moved: Float64Array;
  readonly still: SegmentIndex;
}

/** So many segments of what moves count: of a long border those near the hand. */
const MOST = 200;

/**
 * @param moves  1 for each shell that is moved
 * @param hand  where the hand took hold, u and v
 */
export function heldBorders(
  { edgeEnds, triangleFace, borders }: Pick<ModelBuffers, 'edgeEnds' | 'triangleFace' | 'borders'>,
  { uv, faceShell, seams }: Pick<FlatBuffers, 'uv' | 'faceShell' | 'seams'>,
  moves: Uint8Array,
  hand: readonly [u: number, v: number],
): HeldBorders {
  const still: number[] = [];
  const moved: { readonly ends: readonly [number, number, number, number]; readonly far: number }[] = [];
  for (const edges of [seams, borders])
    for (const e of edges)
      for (const side of [4 * e, 4 * e + 2]) {
        const [a, b] = [edgeEnds[side], edgeEnds[side + 1]];
        if (a === NOWHERE || uv[2 * a] === NO_UV) continue;
        const ends = [uv[2 * a], uv[2 * a + 1], uv[2 * b], uv[2 * b + 1]] as const;
        if (!moves[faceShell[triangleFace[Math.floor(a / 3)]]]) still.push(...ends);
        else
          moved.push({
            ends,
            far: Math.hypot((ends[0] + ends[2]) / 2 - hand[0], (ends[1] + ends[3]) / 2 - hand[1]),
          });
      }
  if (moved.length > MOST) moved.sort((a, b) => a.far - b.far).length = MOST;
  return {
    moved: Float64Array.from(moved.flatMap(({ ends }) => ends)),
    still: segmentIndex(Float64Array.from(still)),
  };
}
