/**
 * Singular values of the affine map that takes each triangle from the flat to the model (Sander, Snyder,
 * Gortler, Hoppe 2001): the greatest and least length on the model of a unit step in the flat.
 *
 * @param positions  xyz per vertex
 * @param uv  `2 × vertexCount`
 * @returns per triangle Γ, γ and the signed area in the flat, `3 × triangleCount`; γ is 0 and Γ infinite where
 *          the flat triangle has no area
 */
export function singularValues(
  positions: Float64Array,
  triangles: Uint32Array,
  uv: Float64Array,
): Float64Array {
  const out = new Float64Array(triangles.length);
  for (let i = 0; i < triangles.length; i += 3) {
    const a = triangles[i];
    const b = triangles[i + 1];
    const c = triangles[i + 2];
    const bu = uv[2 * b] - uv[2 * a];
    const bv = uv[2 * b + 1] - uv[2 * a + 1];
    const cu = uv[2 * c] - uv[2 * a];
    const cv = uv[2 * c + 1] - uv[2 * a + 1];
    const twice = bu * cv - bv * cu;
    let e = 0;
    let f = 0;
    let g = 0;
    for (let k = 0; k < 3; k++) {
      const p = positions[3 * b + k] - positions[3 * a + k];
      const q = positions[3 * c + k] - positions[3 * a + k];
      const su = (p * cv - q * bv) / twice;
      const sv = (q * bu - p * cu) / twice;
      e += su * su;
      f += su * sv;
      g += sv * sv;
    }
    const root = Math.hypot(e - g, 2 * f);
    const flat = twice === 0 || !Number.isFinite(root);
    out[i] = flat ? Infinity : Math.sqrt(0.5 * (e + g + root));
    out[i + 1] = flat ? 0 : Math.sqrt(Math.max(0, 0.5 * (e + g - root)));
    out[i + 2] = 0.5 * twice;
  }
  return out;
}
