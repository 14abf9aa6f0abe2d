import { turnedBox } from './frame.ts';
import type { Shape } from './shape.ts';

/**
 * The four ways to turn a shape so that its smallest box stands straight: a side of that lies along a side of the convex hull (Freeman and Shapira 1975).
 *
 * @returns radians
 */
export function boxAngles({ hull }: Shape): number[] {
  let [least, best] = [Infinity, 0];
  for (let k = 0; k < hull.length; k += 2) {
    const next = (k + 2) % hull.length;
    const angle = -Math.atan2(hull[next + 1] - hull[k + 1], hull[next] - hull[k]);
    const [left, low, right, high] = turnedBox({ hull }, angle);
    const area = (right - left) * (high - low);
    if (area < least) [least, best] = [area, angle];
  }
  return [0, 1, 2, 3].map((quarter) => best + (quarter * Math.PI) / 2);
}
