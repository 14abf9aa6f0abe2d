import type { Frame } from './frame.ts';
import type { PackOptions, PackShell } from './packShell.ts';
import type { Fineness } from './pieces.ts';
import type { Shape } from './shape.ts';

/** From so many shells on there are many, and up to so many there are few. */
const [FEW, MANY] = [100, 1000];
/** Cells along a side of the frame, were it square. */
const [COARSE, FINE, FINEST] = [256, 512, 1024];
/** Fields reach gaps of scales down to this part of the one that they are made for. */
export const LEAST_PART = 0.7;
/** Samples lie no farther apart than so many cells. */
const CELLS_BETWEEN = 12;
/** Whether there are so many shells that each costs too much to look at it twice. */
export const areMany = ({ length }: readonly PackShell[]): boolean => length > MANY;

/** The side of a cell: as many fill a frame whatever its shape. */
export const cellIn = ([left, low, right, high]: Frame, cells: number): number =>
  Math.sqrt((right - left) * (high - low)) / cells;

/** Cells along a side of a square frame for a first layout, and for one that is made better. */
export const cellsAtFirst = (shells: readonly PackShell[]): number =>
  areMany(shells) ? FINEST : shells.length > FEW ? FINE : COARSE;
export const cellsOf = (shells: readonly PackShell[]): number => (areMany(shells) ? FINEST : FINE);

/**
 * How finely each shell is looked at.
 *
 * @param reference  about the scale at which shells will lie
 * @param cells  along a side of the frame, were it square
 */
export function finenessOf(
  shapes: readonly Shape[],
  shells: readonly PackShell[],
  { frame, gap }: PackOptions,
  reference: number,
  cells: number,
): Fineness[] {
  const cell = cellIn(frame, cells);
  const scales = shells.map(({ locked }) => (locked ? 1 : reference));
  // A strip no wider than this is seen wherever it lies across another.
  const thinnest = shapes.reduce(
    (least, { area, border }, i) => Math.min(least, (scales[i] * 2 * area) / (border || 1)),
    Infinity,
  );
  const spacing = Math.max(2 * cell, Math.min(0.8 * (thinnest + 2 * gap), CELLS_BETWEEN * cell));
  return scales.map((scale, i) => ({
    cell: cell / scale,
    reach: gap / (shells[i].locked ? 1 : LEAST_PART * reference),
    spacing: spacing / scale,
  }));
}
