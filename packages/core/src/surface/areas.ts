/** Area of each triangle, units squared. */
export function triangleAreas(positions: Float64Array, triangles: Uint32Array): Float64Array {
  const areas = new Float64Array(triangles.length / 3);
  for (let t = 0; t < areas.length; t++) {
    areas[t] = areaOfTriangle(positions, triangles[3 * t], triangles[3 * t + 1], triangles[3 * t + 2]);
  }
  return areas;
}

/** Area of the triangle of three vertices. */
export function areaOfTriangle(positions: Float64Array, i: number, j: number, k: number): number {
  const a = 3 * i;
  const b = 3 * j;
  const c = 3 * k;
  const ux = positions[b] - positions[a];
  const uy = positions[b + 1] - positions[a + 1];
  const uz = positions[b + 2] - positions[a + 2];
  const vx = positions[c] - positions[a];
  const vy = positions[c + 1] - positions[a + 1];
  const vz = positions[c + 2] - positions[a + 2];
  return 0.5 * Math.hypot(uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx);
}

/** Area of the whole surface. */
export function surfaceArea(positions: Float64Array, triangles: Uint32Array): number {
  let area = 0;
  for (const a of triangleAreas(positions, triangles)) area += a;
  return area;
}
