import { boundingBox, type Mesh } from './mesh.ts';

/** How much taller than deep something must be along z to look as if it lay on its back. */
const TALLER = 1.4;

/**
 * Which axis likely points up, 0 for y and 1 for z: files do not say, but a figure that is tallest along z, and taller than it is deep along
 * y, was made to stand on that end. A guess, to be asked about.
 */
export function likelyUp({ positions }: Pick<Mesh, 'positions'>): 0 | 1 {
  const [x0, y0, z0, x1, y1, z1] = boundingBox(positions);
  const [width, depth, height] = [x1 - x0, y1 - y0, z1 - z0];
  return height > TALLER * depth && height > width ? 1 : 0;
}
