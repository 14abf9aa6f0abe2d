import type { Mesh } from '../mesh/mesh.ts';

/**
 * Which way a texture is drawn out: of each triangle the natural logarithm of the length on the model of a small step along v over that of
 * one along u, ½ ln (G / E) of the first fundamental form of the map from the flat to the model. 0 where squares are no longer one way
 * than the other, which leaves it open whether they are square: a shear shows in the angle.
 *
 * @param triangleCorners  corners of the mesh, `3 × triangleCount`
 * @param uv  of each corner of the mesh, `2 × cornerCount`
 * @returns NaN without UVs, or without area
 */
export function alongOverAcross(
  { positions, cornerVertex }: Pick<Mesh, 'positions' | 'cornerVertex'>,
  triangleCorners: Uint32Array,
  uv: Float64Array,
): Float32Array {
  const ratio = new Float32Array(triangleCorners.length / 3);
  for (let t = 0; t < ratio.length; t++) {
    const [a, b, c] = triangleCorners.subarray(3 * t, 3 * t + 3);
    const [bu, bv] = [uv[2 * b] - uv[2 * a], uv[2 * b + 1] - uv[2 * a + 1]];
    const [cu, cv] = [uv[2 * c] - uv[2 * a], uv[2 * c + 1] - uv[2 * a + 1]];
    const [i, j, k] = [3 * cornerVertex[a], 3 * cornerVertex[b], 3 * cornerVertex[c]];
    let [across, along] = [0, 0];
    for (let d = 0; d < 3; d++) {
      const p = positions[j + d] - positions[i + d];
      const q = positions[k + d] - positions[i + d];
      across += (p * cv - q * bv) ** 2;
      along += (q * bu - p * cu) ** 2;
    }
    ratio[t] = bu * cv === bv * cu ? NaN : 0.5 * Math.log(along / across);
  }
  return ratio;
}
