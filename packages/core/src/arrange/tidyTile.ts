import potpack from 'potpack';
import type { UvBox } from '../surface/uvBox.ts';

/** Between shells, and to the edge of the tile, tile widths. */
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
 * after every act. `packShells` goes by outlines and fills a tile better.
 */
export function tidyTile(boxes: readonly UvBox[]): TidyLayout {
  const area = boxes.reduce((sum, [a, b, c, d]) => sum + (c - a) * (d - b), 0);
  // The gap is a part of the square, whose size follows from the gap: a few rounds settle it.
  let side = Math.sqrt(area) || 1;
  let places: { w: number; h: number; x?: number; y?: number }[] = [];
  let gap = 0;
  for (let round = 0; round < 4; round++) {
    gap = TIDY_GAP * side;
    const pixel = side / PIXELS;
    places = boxes.map(([a, b, c, d]) => ({ w: (c - a + gap) / pixel, h: (d - b + gap) / pixel }));
    // It sorts the list it is given.
    const { w, h } = potpack([...places]);
    side = Math.max(w, h) * pixel + gap || 1;
    for (const place of places)
      Object.assign(place, { x: (place.x ?? 0) * pixel, y: (place.y ?? 0) * pixel });
  }
  const scale = 1 / side;
  const moves = boxes.map(([minU, minV], i) => {
    const { x = 0, y = 0 } = places[i];
    return [scale * (x + gap - minU), scale * (y + gap - minV)] as const;
  });
  return { scale, moves };
}
