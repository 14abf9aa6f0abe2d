import Flatbush from 'flatbush';
import type { FlatShell } from '../surface/flatShell.ts';
import { boxOf, type UvBox } from '../surface/uvBox.ts';

/** Pushes at most, and what of the gap may be missing at the end, units of the shells. */
const [ROUNDS, TOLERANCE] = [40, 1e-7];

/**
 * Moves a shell by little, until it lies a gap away from all others and from the rim of a frame: each round by what is missing most to
 * either side. For one that a raster has placed, which is off by a cell.
 *
 * @param shell  UV of the three corners of each triangle, clear of the others but for the gap
 * @param others  the same of what lies there
 * @returns by how much it was moved; undefined where there is no room
 */
export function nudgeClear(
  shell: FlatShell,
  others: FlatShell,
  gap: number,
  frame: UvBox,
): readonly [u: number, v: number] | undefined {
  const [left, low, right, high] = boxOf(shell);
  // A round moves it by no more than the gap.
  const reach = 3 * gap;
  const near = sidesNear(others, [left - reach, low - reach, right + reach, high + reach]);
  if (near.length === 0) near.push(Infinity, Infinity, Infinity, Infinity);
  const index = new Flatbush(near.length / 4, 16, Float64Array);
  for (let i = 0; i < near.length; i += 4)
    index.add(
      Math.min(near[i], near[i + 2]),
      Math.min(near[i + 1], near[i + 3]),
      Math.max(near[i], near[i + 2]),
      Math.max(near[i + 1], near[i + 3]),
    );
  index.finish();
  let [u, v] = [0, 0];
  for (let round = 0; round < ROUNDS; round++) {
    const missing = { right: 0, left: 0, up: 0, down: 0 };
    const push = (du: number, dv: number): void => {
      missing.right = Math.max(missing.right, du);
      missing.left = Math.max(missing.left, -du);
      missing.up = Math.max(missing.up, dv);
      missing.down = Math.max(missing.down, -dv);
    };
    push(Math.max(0, frame[0] + gap - left - u), Math.max(0, frame[1] + gap - low - v));
    push(Math.min(0, frame[2] - gap - right - u), Math.min(0, frame[3] - gap - high - v));
    let meets = false;
    eachSide(shell, (a, b, c, d) => {
      const side = [a + u, b + v, c + u, d + v];
      const box = [
        Math.min(side[0], side[2]) - gap,
        Math.min(side[1], side[3]) - gap,
        Math.max(side[0], side[2]) + gap,
        Math.max(side[1], side[3]) + gap,
      ] as const;
      index.search(...box, (i) => {
        const [du, dv] = between(near.slice(4 * i, 4 * i + 4), side);
        const distance = Math.hypot(du, dv);
        if (distance === 0) meets = true;
        else if (distance < gap) push((du / distance) * (gap - distance), (dv / distance) * (gap - distance));
        return false;
      });
    });
    if (meets) return undefined;
    if (Math.max(...Object.values(missing)) <= TOLERANCE) return [u, v];
    u += missing.right - missing.left;
    v += missing.up - missing.down;
    if (Math.hypot(u, v) > reach - gap) return undefined;
  }
  return undefined;
}

function eachSide(flat: FlatShell, found: (a: number, b: number, c: number, d: number) => void): void {
  for (let t = 0; t < flat.length; t += 6)
    for (let k = 0; k < 6; k += 2) {
      const next = t + ((k + 2) % 6);
      found(flat[t + k], flat[t + k + 1], flat[next], flat[next + 1]);
    }
}

/** Sides of triangles whose boxes reach into a box, four numbers a side. */
function sidesNear(flat: FlatShell, [left, low, right, high]: UvBox): number[] {
  const near: number[] = [];
  eachSide(flat, (a, b, c, d) => {
    if (Math.max(a, c) >= left && Math.min(a, c) <= right && Math.max(b, d) >= low && Math.min(b, d) <= high)
      near.push(a, b, c, d);
  });
  return near;
}

/** The shortest way from one segment to another that it does not cross. */
function between(from: readonly number[], to: readonly number[]): readonly [number, number] {
  let best: readonly [number, number] = [Infinity, Infinity];
  const take = (u: number, v: number): void => {
    if (Math.hypot(u, v) < Math.hypot(...best)) best = [u, v];
  };
  for (const k of [0, 2]) {
    const [u, v] = nearestOn(from, to[k], to[k + 1]);
    take(to[k] - u, to[k + 1] - v);
    const [p, q] = nearestOn(to, from[k], from[k + 1]);
    take(p - from[k], q - from[k + 1]);
  }
  return best;
}

function nearestOn([a, b, c, d]: readonly number[], u: number, v: number): readonly [number, number] {
  const [du, dv] = [c - a, d - b];
  const along = ((u - a) * du + (v - b) * dv) / (du * du + dv * dv || 1);
  const t = Math.max(0, Math.min(1, along));
  return [a + t * du, b + t * dv];
}
