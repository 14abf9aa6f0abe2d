import { faceCount, type Mesh } from './mesh.ts';
import { faceNormal } from './normals.ts';
import { polygonTriangles } from './polygonTriangles.ts';

/** The triangles that stand for the polygons in every solver, figure and picture. */
export interface Triangulation {
  /** Three corners of each triangle, `3 × triangleCount`; triangles of a face are consecutive. */
  readonly triangleCorners: Uint32Array;
  /** Face of each triangle. */
  readonly triangleFace: Uint32Array;
}

/**
 * Splits every polygon into triangles: quads along the diagonal that keeps both halves facing the same
 * way (the shorter where both do), larger polygons in their best-fit plane.
 */
export function triangulate(mesh: Mesh): Triangulation {
  const { faceStart } = mesh;
  const corners: number[] | Uint32Array = new Uint32Array(3 * countTriangles(mesh));
  const triangleFace = new Uint32Array(corners.length / 3);
  let at = 0;
  for (let f = 0; f < faceCount(mesh); f++) {
    const first = faceStart[f];
    const size = faceStart[f + 1] - first;
    const from = at;
    if (size === 3) {
      corners[at++] = first;
      corners[at++] = first + 1;
      corners[at++] = first + 2;
    } else {
      for (const c of triangulateFace(mesh, f)) corners[at++] = c;
    }
    triangleFace.fill(f, from / 3, at / 3);
  }
  return { triangleCorners: corners.subarray(0, at), triangleFace: triangleFace.subarray(0, at / 3) };
}

/** The triangles of one face, three corners each. */
export function triangulateFace(mesh: Mesh, face: number): number[] {
  const first = mesh.faceStart[face];
  const size = mesh.faceStart[face + 1] - first;
  if (size < 3) return [];
  if (size === 3) return [first, first + 1, first + 2];
  if (size > 4) return polygonTriangles(flatOutline(mesh, face)).map((k) => first + k);
  const s = quadDiagonal(mesh, first);
  return [s, s + 1, s + 2, s, s + 2, s + 3].map((k) => first + (k % 4));
}

function countTriangles(mesh: Mesh): number {
  let count = 0;
  for (let f = 0; f < faceCount(mesh); f++)
    count += Math.max(0, mesh.faceStart[f + 1] - mesh.faceStart[f] - 2);
  return count;
}

/** 0 for the diagonal 0–2, 1 for 1–3. */
function quadDiagonal(mesh: Mesh, first: number): 0 | 1 {
  const agreement = [0, 1].map((s) => {
    const n1 = triangleNormal(mesh, first + s, first + s + 1, first + ((s + 2) % 4));
    const n2 = triangleNormal(mesh, first + s, first + ((s + 2) % 4), first + ((s + 3) % 4));
    return n1[0] * n2[0] + n1[1] * n2[1] + n1[2] * n2[2];
  });
  if (agreement[0] <= 0 !== agreement[1] <= 0) return agreement[0] > 0 ? 0 : 1;
  const even = cornerDistance(mesh, first, first + 2);
  const odd = cornerDistance(mesh, first + 1, first + 3);
  return odd < even * (1 - 1e-9) ? 1 : 0;
}

function triangleNormal(mesh: Mesh, a: number, b: number, c: number): [number, number, number] {
  const p = mesh.positions;
  const i = 3 * mesh.cornerVertex[a];
  const j = 3 * mesh.cornerVertex[b];
  const k = 3 * mesh.cornerVertex[c];
  const ux = p[j] - p[i];
  const uy = p[j + 1] - p[i + 1];
  const uz = p[j + 2] - p[i + 2];
  const vx = p[k] - p[i];
  const vy = p[k + 1] - p[i + 1];
  const vz = p[k + 2] - p[i + 2];
  return [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx];
}

function cornerDistance(mesh: Mesh, a: number, b: number): number {
  const p = mesh.positions;
  const i = 3 * mesh.cornerVertex[a];
  const j = 3 * mesh.cornerVertex[b];
  return Math.hypot(p[j] - p[i], p[j + 1] - p[i + 1], p[j + 2] - p[i + 2]);
}

/** The outline of a face as seen along its normal, wound as the face is, `2 × size`. */
function flatOutline(mesh: Mesh, face: number): number[] {
  const first = mesh.faceStart[face];
  const size = mesh.faceStart[face + 1] - first;
  const [nx, ny, nz] = faceNormal(mesh, face);
  // Project along the largest component of the normal; the order of the two axes keeps the winding.
  const ax = Math.abs(nx);
  const ay = Math.abs(ny);
  const az = Math.abs(nz);
  let [u, v, positive] = [0, 1, nz >= 0];
  if (ax >= ay && ax >= az) [u, v, positive] = [1, 2, nx >= 0];
  else if (ay >= az) [u, v, positive] = [2, 0, ny >= 0];
  if (!positive) [u, v] = [v, u];

  const outline: number[] = [];
  for (let k = 0; k < size; k++) {
    const i = 3 * mesh.cornerVertex[first + k];
    outline.push(mesh.positions[i + u], mesh.positions[i + v]);
  }
  return outline;
}
