import type { PreviewSlice } from '../../store/preview.ts';
import { angles, parallel } from './angles.ts';
import { edges, middles, outlines, points } from './borders.ts';
import { boxes, grid, texels, tile } from './boxes.ts';
import type { Hold, Moved, Snap, Turned } from './snap.ts';

/** Everything that takes hold; of those that hold a place the first that is near does. */
export const SNAPS: readonly Snap[] = [
  points,
  middles,
  edges,
  outlines,
  tile,
  boxes,
  grid,
  texels,
  angles,
  parallel,
];

/** Those that take hold until the artist chooses otherwise: with edges everywhere or with texels nothing else would. */
const USUAL: ReadonlySet<string> = new Set(
  [points, outlines, tile, boxes, grid, angles, parallel].map(({ name }) => name),
);

/** Names of those that take hold. */
export const snapsChosen = ({ snapKinds }: Pick<PreviewSlice, 'snapKinds'>): ReadonlySet<string> =>
  snapKinds ?? USUAL;

/**
 * Where shells that are moved by hand take hold.
 *
 * @param chosen  names of those that count
 * @param reach  how near something has to be, heights of a tile
 */
export function snapMove(moved: Moved, chosen: ReadonlySet<string>, reach: number): readonly Hold[] {
  const snaps = SNAPS.filter(({ name }) => chosen.has(name));
  for (const { place } of snaps) {
    const hold = place?.(moved);
    if (hold && hold.far < reach) return [hold];
  }
  return ([0, 1] as const).flatMap((axis) => {
    let [least, found]: [number, Hold | undefined] = [reach, undefined];
    for (const { lines } of snaps)
      for (const hold of lines?.(moved, axis) ?? []) if (hold.far < least) [least, found] = [hold.far, hold];
    return found ? [found] : [];
  });
}

/** A turn takes hold of angles that are nearer than this, radians. */
const HOLD = (2.5 * Math.PI) / 180;

/** An angle by which something is turned, brought to one that holds where one is near. */
export function snapTurn(turned: Turned, chosen: ReadonlySet<string>): number {
  let [least, found] = [HOLD, turned.angle];
  for (const { name, angles: anglesOf } of SNAPS) {
    if (!chosen.has(name)) continue;
    for (const angle of anglesOf?.(turned) ?? []) {
      const far = Math.abs(angle - turned.angle);
      if (far < least) [least, found] = [far, angle];
    }
  }
  return found;
}
