import type { Mesh } from './mesh.ts';
import { faceNormal } from './normals.ts';

/** A corner counts as turning when its triangle has more than this part of the polygon's area. */
const TURNING = 1e-6;

/**
 * Which way every corner of a polygon turns, seen along its normal: 1 where it is convex, -1 where it turns back, 0 where it is
 * straight or there is no telling.
 */
export function cornerTurns(mesh: Mesh, face: number): Int8Array {
  const { positions: p, cornerVertex } = mesh;
  const [first, end] = [mesh.faceStart[face], mesh.faceStart[face + 1]];
  const [nx, ny, nz] = faceNormal(mesh, face);
  const least = TURNING * (nx * nx + ny * ny + nz * nz);
  const turns = new Int8Array(end - first);
  for (let c = first; c < end; c++) {
    const i = 3 * cornerVertex[c === first ? end - 1 : c - 1];
    const j = 3 * cornerVertex[c];
    const k = 3 * cornerVertex[c + 1 === end ? first : c + 1];
    const [ux, uy, uz] = [p[j] - p[i], p[j + 1] - p[i + 1], p[j + 2] - p[i + 2]];
    const [vx, vy, vz] = [p[k] - p[j], p[k + 1] - p[j + 1], p[k + 2] - p[j + 2]];
    const turn = (uy * vz - uz * vy) * nx + (uz * vx - ux * vz) * ny + (ux * vy - uy * vx) * nz;
    turns[c - first] = turn > least ? 1 : turn < -least ? -1 : 0;
  }
  return turns;
}
