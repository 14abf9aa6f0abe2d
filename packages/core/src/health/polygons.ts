import { withTriangulated } from '../mesh/edit.ts';
import type { Mesh } from '../mesh/mesh.ts';
import { faceNormal } from '../mesh/normals.ts';
import type { Finding, Patient, Repair } from './check.ts';

export const splitThem = (safe: boolean): Repair => ({
  label: 'Split into triangles',
  safe,
  ofFaces: true,
  run: ({ mesh }: Patient, { faces }: Finding) => withTriangulated(mesh, faces),
});

/** Faces for which something holds. */
export function facesWhere({ mesh }: Patient, holds: (face: number) => boolean): number[] {
  const faces: number[] = [];
  for (let f = 0; f + 1 < mesh.faceStart.length; f++) if (holds(f)) faces.push(f);
  return faces;
}

/** Whether an outline touches itself: a point named twice, as by a bridge from the rim to a hole. */
export function isBridged(mesh: Mesh, face: number): boolean {
  const [from, to] = [mesh.faceStart[face], mesh.faceStart[face + 1]];
  if (to - from < 6) return false;
  const seen = new Set<number>();
  for (let c = from; c < to; c++) {
    const v = mesh.cornerVertex[c];
    if (seen.has(v) && v !== mesh.cornerVertex[c - 1]) return true;
    seen.add(v);
  }
  return false;
}

/** Whether a corner of a polygon turns the other way than the whole, by more than a hair. */
export function isConcave(mesh: Mesh, face: number): boolean {
  const [from, to] = [mesh.faceStart[face], mesh.faceStart[face + 1]];
  if (to - from < 4) return false;
  const n = faceNormal(mesh, face);
  const area = Math.hypot(...n);
  const at = (k: number) => 3 * mesh.cornerVertex[from + (k % (to - from))];
  for (let k = 0; k < to - from; k++) {
    const [a, b, c] = [at(k), at(k + 1), at(k + 2)];
    const p = mesh.positions;
    const u = [0, 1, 2].map((i) => p[b + i] - p[a + i]);
    const v = [0, 1, 2].map((i) => p[c + i] - p[b + i]);
    const turn =
      n[0] * (u[1] * v[2] - u[2] * v[1]) +
      n[1] * (u[2] * v[0] - u[0] * v[2]) +
      n[2] * (u[0] * v[1] - u[1] * v[0]);
    if (turn < -1e-3 * area * Math.hypot(...u) * Math.hypot(...v)) return true;
  }
  return false;
}

/** How far the corners of a polygon lie from its best-fit plane, as a part of the square root of its area. */
export function warp(mesh: Mesh, face: number): number {
  const [from, to] = [mesh.faceStart[face], mesh.faceStart[face + 1]];
  if (to - from < 4) return 0;
  const n = faceNormal(mesh, face);
  const area = Math.hypot(...n);
  if (area === 0) return 0;
  let [least, most] = [Infinity, -Infinity];
  const o = 3 * mesh.cornerVertex[from];
  for (let c = from; c < to; c++) {
    const i = 3 * mesh.cornerVertex[c];
    const height =
      (n[0] * (mesh.positions[i] - mesh.positions[o]) +
        n[1] * (mesh.positions[i + 1] - mesh.positions[o + 1]) +
        n[2] * (mesh.positions[i + 2] - mesh.positions[o + 2])) /
      area;
    least = Math.min(least, height);
    most = Math.max(most, height);
  }
  return (0.5 * (most - least)) / Math.sqrt(0.5 * area);
}
