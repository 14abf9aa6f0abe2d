import { cornerTurns } from '../mesh/cornerTurns.ts';
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
    let turns: Int8Array | undefined;
    let [turnsBack, turnsBackThere] = [false, false];
    for (let c = first; c < end; c++) {
      const before = c === first ? end - 1 : c - 1;
      const after = c + 1 === end ? first : c + 1;
      if (cornerArea(uv, before, c, after) > STRAIGHT * area) continue;
      turns ??= cornerTurns(mesh, f);
      if (turns[c - first] > 0) turnsBack = true;
      else if (turns[c - first] < 0) turnsBackThere = true;
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
