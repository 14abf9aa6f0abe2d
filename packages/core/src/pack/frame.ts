import type { UvBox } from '../surface/uvBox.ts';
import type { Shape } from './shape.ts';
import { anglesOf, type Turning } from './turning.ts';

/** What is filled: left, low, right and high. */
export type Frame = readonly [left: number, low: number, right: number, high: number];

/** Box of a shape that is turned by an angle. */
export function turnedBox({ hull }: Pick<Shape, 'hull'>, angle: number): UvBox {
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  let [minU, minV, maxU, maxV] = [Infinity, Infinity, -Infinity, -Infinity];
  for (let k = 0; k < hull.length; k += 2) {
    const u = c * hull[k] - s * hull[k + 1];
    const v = s * hull[k] + c * hull[k + 1];
    minU = Math.min(minU, u);
    maxU = Math.max(maxU, u);
    minV = Math.min(minV, v);
    maxV = Math.max(maxV, v);
  }
  return [minU, minV, maxU, maxV];
}

/** The greatest scale at which a shape fits a frame by itself, and how it is turned then. */
export function largestIn(
  shape: Pick<Shape, 'hull'>,
  turning: Turning,
  frame: Frame,
  gap: number,
): { readonly scale: number; readonly angle: number } {
  const [wide, tall] = [frame[2] - frame[0] - 2 * gap, frame[3] - frame[1] - 2 * gap];
  let [scale, best] = [0, 0];
  for (const angle of anglesOf(turning)) {
    const [left, low, right, high] = turnedBox(shape, angle);
    const fits = Math.min(wide / (right - left || 1e-300), tall / (high - low || 1e-300));
    if (fits > scale) [scale, best] = [fits, angle];
  }
  return { scale, angle: best };
}

/** The greatest scale at which each of some shapes fits a frame by itself. */
export const greatestScale = (
  shapes: readonly (readonly [Pick<Shape, 'hull'>, Turning])[],
  frame: Frame,
  gap: number,
): number => Math.min(...shapes.map(([shape, turning]) => largestIn(shape, turning, frame, gap).scale));
