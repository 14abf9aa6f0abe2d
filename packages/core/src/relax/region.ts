import { borders } from '../surface/borders.ts';
import type { Shell } from '../surface/shell.ts';

/**
 * Vertices that must stay when only some faces may loosen: all that touch a face outside the region.
 *
 * @param inRegion  1 for each triangle that may loosen
 * @returns 1 for each shell vertex that stays
 */
export function fixedOutside({ triangles, positions }: Shell, inRegion: Uint8Array): Uint8Array {
  const fixed = new Uint8Array(positions.length / 3);
  for (let i = 0; i < triangles.length; i++) if (!inRegion[Math.floor(i / 3)]) fixed[triangles[i]] = 1;
  return fixed;
}

/** Vertices of all borders: 1 for each that stays. */
export function fixedBorder({ triangles, positions }: Shell): Uint8Array {
  const fixed = new Uint8Array(positions.length / 3);
  for (const loop of borders(triangles, fixed.length).loops) for (const v of loop) fixed[v] = 1;
  return fixed;
}
