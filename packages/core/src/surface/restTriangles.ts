/**
 * Every triangle of a shell laid in its own plane: the first corner at the origin, the second on the x axis.
 * Triangles too thin to have a shape are given a little height, so that no solver meets a zero area: the
 * height floor is `FLOOR` times the longest side, and a triangle of no size at all becomes a small right one. Cotangents
 * stay below 1 / FLOOR so, and a shell keeps its flat parts flat whatever slivers and doubled points lie among them.
 */
export interface RestTriangles {
  /** x of the second corner, then x and y of the third: `3 × triangleCount`, model units. */
  readonly local: Float64Array;
  /** Areas of these triangles, model units squared. */
  readonly area: Float64Array;
  readonly totalArea: number;
}

const FLOOR = 1e-5;
/** Of the whole shell: what is smaller would drown in rounding. */
const SMALLEST = 1e-6;

export function restTriangles(positions: Float64Array, triangles: Uint32Array): RestTriangles {
  const count = triangles.length / 3;
  const local = new Float64Array(3 * count);
  const area = new Float64Array(count);
  const smallest = SMALLEST * extent(positions) || 1;
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
    const nx = uy * vz - uz * vy;
    const ny = uz * vx - ux * vz;
    const nz = ux * vy - uy * vx;
    const uu = ux * ux + uy * uy + uz * uz;
    const vv = vx * vx + vy * vy + vz * vz;
    const uv = ux * vx + uy * vy + uz * vz;
    const base = Math.sqrt(uu);
    const longest = Math.sqrt(Math.max(uu, vv, uu + vv - 2 * uv));
    const floor = Math.max(FLOOR * longest, 0.1 * smallest);
    if (longest < smallest) {
      local[3 * t] = smallest;
      local[3 * t + 1] = 0;
      local[3 * t + 2] = smallest;
    } else if (base < floor) {
      // The first side has no direction to speak of: the others stand on it side by side.
      local[3 * t] = floor;
      local[3 * t + 1] = 0.5 * floor;
      local[3 * t + 2] = longest;
    } else {
      local[3 * t] = base;
      local[3 * t + 1] = uv / base;
      local[3 * t + 2] = Math.max(Math.sqrt(nx * nx + ny * ny + nz * nz) / base, floor);
    }
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
