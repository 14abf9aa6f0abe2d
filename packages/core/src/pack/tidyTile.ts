import potpack from 'potpack';
import { frameOf, gapOf, type Tile } from '../surface/tiles.ts';
import type { UvBox } from '../surface/uvBox.ts';

/** Between shells, and to the edge of the tile, at least: heights of it. */
export const TIDY_GAP = 0.004;

/** The packer takes boxes to be some pixels large. */
const PIXELS = 4096;

/** What brings every box to its place: u' = scale · u + moveU, v' = scale · v + moveV. */
export interface TidyLayout {
  readonly scale: number;
  readonly moves: readonly (readonly [number, number])[];
}

/**
 * Lays boxes clear of one another, all scaled alike and none turned, so that they fill the tile: fast, for a layout that is made anew
 * after every act. `packFirst` goes by outlines and fills a tile better.
 *
 * @param tile  undefined for a square of which the lower left corner is the origin
 */
export function tidyTile(boxes: readonly UvBox[], tile?: Tile): TidyLayout {
  const [left, low, right] = tile ? frameOf(tile) : [0, 0, 1];
  const least = Math.max(TIDY_GAP, tile ? gapOf(tile) : 0);
  // A tile that is not square is packed as a square, to which its width is pressed.
  const wide = right - left;
  const area = boxes.reduce((sum, [a, b, c, d]) => sum + ((c - a) / wide) * (d - b), 0);
  // The gap is a part of the square, whose size follows from the gap: a few rounds settle it.
  let side = Math.sqrt(area) || 1;
  let places: { w: number; h: number; x?: number; y?: number }[] = [];
  let gap = 0;
  for (let round = 0; round < 4; round++) {
    gap = least * side;
    const pixel = side / PIXELS;
    places = boxes.map(([a, b, c, d]) => ({ w: (c - a + gap) / wide / pixel, h: (d - b + gap) / pixel }));
    // It sorts the list it is given.
    const { w, h } = potpack([...places]);
    side = Math.max(w * pixel + gap / wide, h * pixel + gap) || 1;
    for (const place of places)
      Object.assign(place, { x: (place.x ?? 0) * pixel, y: (place.y ?? 0) * pixel });
  }
  const scale = 1 / side;
  const moves = boxes.map(([minU, minV], i) => {
    const { x = 0, y = 0 } = places[i];
    return [left + scale * (x * wide + gap - minU), low + scale * (y + gap - minV)] as const;
  });
  return { scale, moves };
}
