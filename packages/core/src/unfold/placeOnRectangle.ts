import { distance } from '../mesh/distance.ts';

/** The four sides of a border that is to become a rectangle. */
export interface RectangleSides {
  /** Vertices of each side, both ends included; the longer pair first. */
  readonly sides: readonly (readonly number[])[];
  readonly width: number;
  readonly height: number;
  /** By how many times sides that face each other differ in length, at most. */
  readonly apart: number;
}

/**
 * Parts a border at its four corners. Sides that face each other become as long as they are on average.
 *
 * @param loop  vertices of the border, the shell to the left
 * @param corners  four places of it, ascending
 */
export function sidesOfRectangle(
  positions: Float64Array,
  loop: Uint32Array,
  corners: readonly number[],
): RectangleSides {
  const sides = corners.map((from, i) => run(loop, from, corners[(i + 1) % 4]));
  const lengths = sides.map((side) => lengthOf(positions, side));
  const across = [0.5 * (lengths[0] + lengths[2]), 0.5 * (lengths[1] + lengths[3])];
  const first = across[0] >= across[1] ? 0 : 1;
  return {
    sides: [...sides.slice(first), ...sides.slice(0, first)],
    width: across[first],
    height: across[1 - first],
    apart: Math.max(...[0, 1].map((i) => timesApart(lengths[i], lengths[i + 2]))),
  };
}

const timesApart = (a: number, b: number): number => Math.max(a, b) / Math.min(a, b);

/**
 * Puts a border on a rectangle, the longer sides along u; places on a side keep their shares of its length.
 *
 * @returns `2 × vertexCount`, model units, zero inside
 */
export function placeOnRectangle(
  positions: Float64Array,
  { sides, width, height }: RectangleSides,
): Float64Array {
  const placed = new Float64Array((2 * positions.length) / 3);
  const corners = [
    [0, 0],
    [width, 0],
    [width, height],
    [0, height],
  ];
  sides.forEach((side, i) => {
    const [[u0, v0], [u1, v1]] = [corners[i], corners[(i + 1) % 4]];
    const whole = lengthOf(positions, side) || 1;
    let at = 0;
    side.forEach((v, k) => {
      if (k > 0) at += distance(positions, side[k - 1], v);
      placed[2 * v] = u0 + (at / whole) * (u1 - u0);
      placed[2 * v + 1] = v0 + (at / whole) * (v1 - v0);
    });
  });
  return placed;
}

/** Vertices of the loop from one place to another, both included. */
function run(loop: Uint32Array, from: number, to: number): number[] {
  const found = [loop[from]];
  for (let i = from; i !== to; ) {
    i = (i + 1) % loop.length;
    found.push(loop[i]);
  }
  return found;
}

const lengthOf = (positions: Float64Array, side: readonly number[]): number =>
  side.reduce((sum, v, k) => (k > 0 ? sum + distance(positions, side[k - 1], v) : sum), 0);
