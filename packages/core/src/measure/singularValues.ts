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
    const px = positions[3 * b] - positions[3 * a];
    const py = positions[3 * b + 1] - positions[3 * a + 1];
    const pz = positions[3 * b + 2] - positions[3 * a + 2];
    const qx = positions[3 * c] - positions[3 * a];
    const qy = positions[3 * c + 1] - positions[3 * a + 1];
    const qz = positions[3 * c + 2] - positions[3 * a + 2];
    // The images of a unit step along u and along v, and their inner products.
    const ux = (px * cv - qx * bv) / twice;
    const uy = (py * cv - qy * bv) / twice;
    const uz = (pz * cv - qz * bv) / twice;
    const vx = (qx * bu - px * cu) / twice;
    const vy = (qy * bu - py * cu) / twice;
    const vz = (qz * bu - pz * cu) / twice;
    const e = ux * ux + uy * uy + uz * uz;
    const f = ux * vx + uy * vy + uz * vz;
    const g = vx * vx + vy * vy + vz * vz;
    const most = Math.sqrt(0.5 * (e + g + Math.hypot(e - g, 2 * f)));
    const flat = twice === 0 || !Number.isFinite(most);
    // Γ γ is the ratio of areas; taking γ from it loses no digits where γ is small.
    const areas = Math.hypot(py * qz - pz * qy, pz * qx - px * qz, px * qy - py * qx) / Math.abs(twice);
    out[i] = flat ? Infinity : most;
    out[i + 1] = flat || most === 0 ? 0 : areas / most;
    out[i + 2] = 0.5 * twice;
  }
  return out;
}
