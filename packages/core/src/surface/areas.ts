/** Area of each triangle, units squared. */
export function triangleAreas(positions: Float64Array, triangles: Uint32Array): Float64Array {
  const areas = new Float64Array(triangles.length / 3);
  for (let t = 0; t < areas.length; t++) {
    const a = 3 * triangles[3 * t];
    const b = 3 * triangles[3 * t + 1];
    const c = 3 * triangles[3 * t + 2];
    const ux = positions[b] - positions[a];
    const uy = positions[b + 1] - positions[a + 1];
    const uz = positions[b + 2] - positions[a + 2];
    const vx = positions[c] - positions[a];
    const vy = positions[c + 1] - positions[a + 1];
    const vz = positions[c + 2] - positions[a + 2];
    areas[t] = 0.5 * Math.hypot(uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx);
  }
  return areas;
}

/** Area of the whole surface. */
export const surfaceArea = (positions: Float64Array, triangles: Uint32Array): number =>
  triangleAreas(positions, triangles).reduce((a, b) => a + b, 0);
