import { frameOf, gapOf, type Tile, tileOf } from '@blunt-hem/core/surface/tiles';
import type { UvBox } from '@blunt-hem/core/surface/uvBox';

/** What a side or a middle of a box can come to lie on, along one axis. */
interface Line {
  /** Which of the box: its lower side, its middle or its upper side. */
  readonly of: 0 | 1 | 2;
  readonly at: number;
  /** What it is, for the artist. */
  readonly what: string;
  /** From where to where it runs along the other axis. */
  readonly from: number;
  readonly to: number;
}

/** A line that took hold, from u and v to u and v. */
export type Guide = readonly [u0: number, v0: number, u1: number, v1: number];

export interface Snapped {
  /** By how much the box is moved more. */
  readonly by: readonly [u: number, v: number];
  readonly guides: readonly Guide[];
  readonly what: readonly string[];
}

/** So many heights of a tile beside the box others count: lines of far away shells are in the way. */
const NEAR = 0.15;
/** Parts of the height of a tile at which the grid has its lines. */
const GRID = 8;

/**
 * Where a box that is moved by hand takes hold: the padding of its tile, its middle, the grid, and other shells, beside which it keeps the padding.
 *
 * @param box  where it would lie
 * @param others  boxes of shells that stay
 * @param reach  how near a line has to be, heights of a tile
 */
export function snapBox(
  box: UvBox,
  others: readonly UvBox[],
  tiles: readonly Tile[],
  reach: number,
): Snapped {
  const tile = tileOf(tiles, box) ?? tiles[0];
  const by: [number, number] = [0, 0];
  const guides: Guide[] = [];
  const what: string[] = [];
  for (const axis of [0, 1] as const) {
    const line = nearest(box, axis, linesFor(box, others, tile, axis), reach);
    if (!line) continue;
    by[axis] = line.at - placeOf(box, axis, line.of);
    const across = 1 - axis;
    const [from, to] = [Math.min(line.from, box[across]), Math.max(line.to, box[across + 2])];
    guides.push(axis === 0 ? [line.at, from, line.at, to] : [from, line.at, to, line.at]);
    what.push(line.what);
  }
  return { by, guides, what };
}

const placeOf = (box: UvBox, axis: 0 | 1, of: Line['of']): number =>
  ((2 - of) * box[axis] + of * box[axis + 2]) / 2;

function nearest(box: UvBox, axis: 0 | 1, lines: Iterable<Line>, reach: number): Line | undefined {
  let [least, found]: [number, Line | undefined] = [reach, undefined];
  for (const line of lines) {
    const far = Math.abs(line.at - placeOf(box, axis, line.of));
    if (far < least) [least, found] = [far, line];
  }
  return found;
}

function* linesFor(box: UvBox, others: readonly UvBox[], tile: Tile, axis: 0 | 1): Generator<Line> {
  const frame = frameOf(tile);
  const gap = gapOf(tile);
  const across = (1 - axis) as 0 | 1;
  const [from, to] = [frame[across], frame[across + 2]];
  yield { of: 0, at: frame[axis] + gap, what: 'padding of the tile', from, to };
  yield { of: 2, at: frame[axis + 2] - gap, what: 'padding of the tile', from, to };
  yield { of: 1, at: (frame[axis] + frame[axis + 2]) / 2, what: 'middle of the tile', from, to };
  for (const other of others) {
    if (other[across] > box[across + 2] + NEAR || other[across + 2] < box[across] - NEAR) continue;
    if (other[axis] > box[axis + 2] + NEAR || other[axis + 2] < box[axis] - NEAR) continue;
    const its = { from: other[across], to: other[across + 2] };
    yield { of: 0, at: other[axis + 2] + gap, what: 'padding of a shell', ...its };
    yield { of: 2, at: other[axis] - gap, what: 'padding of a shell', ...its };
    yield { of: 0, at: other[axis], what: 'side of a shell', ...its };
    yield { of: 2, at: other[axis + 2], what: 'side of a shell', ...its };
    yield { of: 1, at: (other[axis] + other[axis + 2]) / 2, what: 'middle of a shell', ...its };
  }
  for (const of of [0, 2] as const)
    yield {
      of,
      at: Math.round(placeOf(box, axis, of) * GRID) / GRID,
      what: 'grid',
      from: box[across],
      to: box[across + 2],
    };
}

/** A turn takes hold at every so many degrees where it is nearer than the second number. */
const [STEP, HOLD] = [15, 2.5];

/** An angle by which something is turned, radians, brought to a round one where it is near. */
export function snapAngle(angle: number): number {
  const degrees = (angle * 180) / Math.PI;
  const round = STEP * Math.round(degrees / STEP);
  return Math.abs(degrees - round) < HOLD ? (round * Math.PI) / 180 : angle;
}
