import { type SegmentIndex, segmentIndex } from '@blunt-hem/core/measure/snapToBorders';
import { type FlatBuffers, type ModelBuffers, NO_UV, NOWHERE } from '../../worker/protocol.ts';

/** Borders of shells on the Board as a hand meets them. */
export interface HeldBorders {
  /** u and v of both ends of the segments that move, those nearest to the hand. */
  readonly moved: Float64Array;
  readonly still: SegmentIndex;
}

/** So many segments or points of what moves count: those near the hand. */
const MOST = 200;

type Model = Pick<ModelBuffers, 'edgeEnds' | 'triangleFace' | 'borders'>;
type Flat = Pick<FlatBuffers, 'uv' | 'faceShell' | 'seams'>;

/** A side of a seam or border where it lies on the Board: its shell, and u and v of both ends. */
interface BorderSide {
  readonly shell: number;
  readonly ends: readonly [u0: number, v0: number, u1: number, v1: number];
}

function* borderSides(
  { edgeEnds, triangleFace, borders }: Model,
  { uv, faceShell, seams }: Flat,
): Generator<BorderSide> {
  for (const edges of [seams, borders])
    for (const e of edges)
      for (const side of [4 * e, 4 * e + 2]) {
        const [a, b] = [edgeEnds[side], edgeEnds[side + 1]];
        if (a === NOWHERE || uv[2 * a] === NO_UV) continue;
        yield {
          shell: faceShell[triangleFace[Math.floor(a / 3)]],
          ends: [uv[2 * a], uv[2 * a + 1], uv[2 * b], uv[2 * b + 1]],
        };
      }
}

/**
 * Of shells that are moved.
 *
 * @param moves  1 for each of them
 * @param hand  where the hand took hold, u and v
 */
export function heldBorders(
  model: Model,
  flat: Flat,
  moves: Uint8Array,
  hand: readonly [u: number, v: number],
): HeldBorders {
  const still: number[] = [];
  const moved: { readonly ends: BorderSide['ends']; readonly far: number }[] = [];
  for (const { shell, ends } of borderSides(model, flat)) {
    if (moves[shell]) moved.push({ ends, far: farFrom(hand, ends) });
    else still.push(...ends);
  }
  if (moved.length > MOST) moved.sort((a, b) => a.far - b.far).length = MOST;
  return {
    moved: Float64Array.from(moved.flatMap(({ ends }) => ends)),
    still: segmentIndex(Float64Array.from(still)),
  };
}

/**
 * Of points that are moved: each is a segment without length, and borders that end in one of them do not stay.
 *
 * @param points  u and v of each
 * @param hand  where the hand took hold, u and v
 * @param follows  whether what is near them goes along, so that nothing of their shells stays
 */
export function bordersRoundPoints(
  model: Model,
  flat: Flat,
  points: readonly { readonly u: number; readonly v: number; readonly shell: number }[],
  hand: readonly [u: number, v: number],
  follows: boolean,
): HeldBorders {
  const shells = new Set(points.map(({ shell }) => shell));
  const places = new Set(points.map(({ u, v }) => `${u} ${v}`));
  const isHeld = (u: number, v: number): boolean => places.has(`${u} ${v}`);
  const still: number[] = [];
  for (const { shell, ends } of borderSides(model, flat)) {
    const [u0, v0, u1, v1] = ends;
    if (shells.has(shell) && (follows || isHeld(u0, v0) || isHeld(u1, v1))) continue;
    still.push(...ends);
  }
  const nearest = points
    .map(({ u, v }) => ({ ends: [u, v, u, v] as const, far: Math.hypot(u - hand[0], v - hand[1]) }))
    .sort((a, b) => a.far - b.far)
    .slice(0, MOST);
  return {
    moved: Float64Array.from(nearest.flatMap(({ ends }) => ends)),
    still: segmentIndex(Float64Array.from(still)),
  };
}

const farFrom = ([u, v]: readonly [number, number], [u0, v0, u1, v1]: BorderSide['ends']): number =>
  Math.hypot((u0 + u1) / 2 - u, (v0 + v1) / 2 - v);
