import { triangleArea } from '../surface/flatArea.ts';

/**
 * Triangles that lie the right way up, but no longer once their UVs are rounded to single precision, the coarsest that any export
 * writes: they are smaller than a ten-thousandth of a texel on the largest texture.
 *
 * @param uv  `2 × vertexCount`, tile units
 */
export function lostByRounding(triangles: Uint32Array, uv: Float64Array): number {
  const rounded = Float64Array.from(new Float32Array(uv));
  let lost = 0;
  for (let t = 0; t < triangles.length / 3; t++)
    if (!(triangleArea(triangles, rounded, t) > 0) && triangleArea(triangles, uv, t) > 0) lost++;
  return lost;
}
