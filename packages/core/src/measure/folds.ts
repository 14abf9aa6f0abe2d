import type { Mesh } from '../mesh/mesh.ts';

/** Polygons that are not valid under every diagonal. */
export interface Folds {
  /** Faces of which a corner turns back in the flat although it does not on the model: some way of splitting them flips a part. */
  readonly folded: readonly number[];
  /** Faces of which a corner turns back on the model itself, so that it does in the flat as well. */
  readonly concave: number;
}

/** A corner of a flat polygon counts as turning back when its triangle has less than this part of the polygon's area. */
const STRAIGHT = 1e-9;
/** A corner of the model counts as turning when its triangle has more than this part of the polygon's area. */
const TURNING = 1e-6;

/**
 * Looks at every corner of every polygon alike: other programs split polygons by diagonals of their own. Triangles, and polygons that
 * are flipped as a whole, are left to the count of flipped faces.
 *
 * @param uv  of each corner of the mesh, `2 × cornerCount`
 * @param faces  to look at
 */
export function foldsOf(mesh: Mesh, uv: Float64Array, faces: Iterable<number>): Folds {
  const folded: number[] = [];
  let concave = 0;
  for (const f of faces) {
    const [first, end] = [mesh.faceStart[f], mesh.faceStart[f + 1]];
    if (end - first < 4) continue;
    const area = flatArea(uv, first, end);
    if (!(area > 0)) continue;
    const normal = faceNormal(mesh, first, end);
    const size = Math.hypot(...normal);
    let [turnsBack, turnsBackThere] = [false, false];
    for (let c = first; c < end; c++) {
      const before = c === first ? end - 1 : c - 1;
      const after = c + 1 === end ? first : c + 1;
      if (cornerArea(uv, before, c, after) > STRAIGHT * area) continue;
      const turn = cornerTurn(mesh, before, c, after, normal) / size;
      if (turn > TURNING * size) turnsBack = true;
      else if (turn < -TURNING * size) turnsBackThere = true;
    }
    if (turnsBack) folded.push(f);
    else if (turnsBackThere) concave++;
  }
  return { folded, concave };
}

/** Twice the area of a flat polygon, negative when it lies upside down. */
function flatArea(uv: Float64Array, first: number, end: number): number {
  let area = 0;
  for (let c = first; c < end; c++) {
    const d = c + 1 === end ? first : c + 1;
    area += uv[2 * c] * uv[2 * d + 1] - uv[2 * d] * uv[2 * c + 1];
  }
  return area;
}

/** Twice the area of the triangle at a corner. */
function cornerArea(uv: Float64Array, a: number, b: number, c: number): number {
  const [x, y] = [uv[2 * b], uv[2 * b + 1]];
  return (x - uv[2 * a]) * (uv[2 * c + 1] - y) - (y - uv[2 * a + 1]) * (uv[2 * c] - x);
}

/** The normal of a polygon, as long as twice its area (Newell). */
function faceNormal({ positions: p, cornerVertex }: Mesh, first: number, end: number): number[] {
  const normal = [0, 0, 0];
  for (let c = first; c < end; c++) {
    const a = 3 * cornerVertex[c];
    const b = 3 * cornerVertex[c + 1 === end ? first : c + 1];
    for (let k = 0; k < 3; k++) {
      const [i, j] = [(k + 1) % 3, (k + 2) % 3];
      normal[k] += (p[a + i] - p[b + i]) * (p[a + j] + p[b + j]);
    }
  }
  return normal;
}

/** Twice the area of the triangle at a corner of the model, as the normal sees it, times the length of the normal. */
function cornerTurn(
  { positions: p, cornerVertex }: Mesh,
  a: number,
  b: number,
  c: number,
  normal: readonly number[],
): number {
  const [i, j, k] = [3 * cornerVertex[a], 3 * cornerVertex[b], 3 * cornerVertex[c]];
  const u = [0, 1, 2].map((x) => p[j + x] - p[i + x]);
  const v = [0, 1, 2].map((x) => p[k + x] - p[j + x]);
  return (
    (u[1] * v[2] - u[2] * v[1]) * normal[0] +
    (u[2] * v[0] - u[0] * v[2]) * normal[1] +
    (u[0] * v[1] - u[1] * v[0]) * normal[2]
  );
}
