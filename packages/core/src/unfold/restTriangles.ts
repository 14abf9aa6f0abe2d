/**
 * Every triangle of a shell laid in its own plane: the first corner at the origin, the second on the x axis.
 * Triangles too thin to have a shape are given a little height, so that no solver meets a zero area: the
 * height floor is `FLOOR` times the longest side, and a triangle of no size at all becomes a small right one.
 */
export interface RestTriangles {
  /** x of the second corner, then x and y of the third: `3 × triangleCount`, model units. */
  readonly local: Float64Array;
  /** Areas of these triangles, model units squared. */
  readonly area: Float64Array;
  readonly totalArea: number;
}

const FLOOR = 1e-5;

export function restTriangles(positions: Float64Array, triangles: Uint32Array): RestTriangles {
  const count = triangles.length / 3;
  const local = new Float64Array(3 * count);
  const area = new Float64Array(count);
  const smallest = 1e-9 * extent(positions) || 1;
  let totalArea = 0;
  for (let t = 0; t < count; t++) {
    const a = 3 * triangles[3 * t];
    const b = 3 * triangles[3 * t + 1];
    const c = 3 * triangles[3 * t + 2];
    const ux = positions[b] - positions[a];
    const uy = positions[b + 1] - positions[a + 1];
    const uz = positions[b + 2] - positions[a + 2];
    const vx = positions[c] - positions[a];
    const vy = positions[c + 1] - positions[a + 1];
    const vz = positions[c + 2] - positions[a + 2];
    const base = Math.max(Math.sqrt(ux * ux + uy * uy + uz * uz), smallest);
    const along = (ux * vx + uy * vy + uz * vz) / base;
    const nx = uy * vz - uz * vy;
    const ny = uz * vx - ux * vz;
    const nz = ux * vy - uy * vx;
    const rise = Math.sqrt(nx * nx + ny * ny + nz * nz) / base;
    const rest = base - along;
    const longest = Math.sqrt(Math.max(base * base, Math.max(along * along, rest * rest) + rise * rise));
    local[3 * t] = Math.max(base, FLOOR * longest);
    local[3 * t + 1] = along;
    local[3 * t + 2] = Math.max(rise, FLOOR * longest);
    area[t] = 0.5 * local[3 * t] * local[3 * t + 2];
    totalArea += area[t];
  }
  return { local, area, totalArea };
}

function extent(positions: Float64Array): number {
  let far = 0;
  for (let i = 3; i < positions.length; i++) far = Math.max(far, Math.abs(positions[i] - positions[i % 3]));
  return far;
}
