import { boundingBox, type Mesh } from './mesh.ts';
import { faceNormal } from './normals.ts';

/** How much taller than deep something must be along z to look as if it lay on its back. */
const TALLER = 1.4;
/** What is lower than this part of its length and breadth is a sheet, which may well look forward. */
const FLAT = 0.4;
/** What stands on less than this part of its height, both ways, is a sheet on its edge. */
const BROAD = 0.25;
/** What lies within this part of the height above the lowest point is what something stands on. */
const SOLE = 0.04;

/**
 * Which axis likely points up, 0 for y and 1 for z: files do not say. What can stand along one axis alone, its middle above what it stands
 * on, was made to stand so: a beast on four legs would fall off its tail. What can stand along both, as a figure can lie on its back, was
 * made to stand on its end where it is tallest along z, and taller than it is deep along y. A guess, to be asked about.
 */
export function likelyUp(mesh: Mesh): 0 | 1 {
  const [x0, y0, z0, x1, y1, z1] = boundingBox(mesh.positions);
  const [width, depth, height] = [x1 - x0, y1 - y0, z1 - z0];
  const middle = middleOf(mesh);
  const [alongY, alongZ] = [1, 2].map((axis) => steadiness(mesh, middle, axis));
  if (alongY > 0 && alongZ === 0) return 0;
  if (alongY === 0 && alongZ > BROAD && height > FLAT * Math.max(width, depth)) return 1;
  return height > TALLER * depth && height > width ? 1 : 0;
}

/** How broad is what something stands on, as a part of its height; 0 where its middle does not lie above it. */
function steadiness({ positions }: Mesh, middle: readonly number[], up: number): number {
  let [low, high] = [Infinity, -Infinity];
  for (let i = up; i < positions.length; i += 3) {
    low = Math.min(low, positions[i]);
    high = Math.max(high, positions[i]);
  }
  const sole = low + SOLE * (high - low);
  const breadths = [0, 1, 2].flatMap((axis) => {
    if (axis === up) return [];
    let [from, to] = [Infinity, -Infinity];
    for (let i = 0; i < positions.length; i += 3)
      if (positions[i + up] <= sole) {
        from = Math.min(from, positions[i + axis]);
        to = Math.max(to, positions[i + axis]);
      }
    return from <= middle[axis] && middle[axis] <= to ? to - from : 0;
  });
  return Math.min(...breadths) / (high - low || 1);
}

/** Middle of the surface. */
function middleOf(mesh: Mesh): number[] {
  const { faceStart, cornerVertex, positions } = mesh;
  const sum = [0, 0, 0];
  let all = 0;
  for (let f = 0; f + 1 < faceStart.length; f++) {
    const area = Math.hypot(...faceNormal(mesh, f));
    const corners = faceStart[f + 1] - faceStart[f];
    all += area;
    for (let c = faceStart[f]; c < faceStart[f + 1]; c++)
      for (let k = 0; k < 3; k++) sum[k] += (area * positions[3 * cornerVertex[c] + k]) / corners;
  }
  return sum.map((s) => s / (all || 1));
}
