import { faceCount, type Mesh } from './mesh.ts';

/** Area-weighted normal of a polygon, not normalised: twice its area long (Newell's method). */
export function faceNormal(mesh: Mesh, face: number): [number, number, number] {
  const { positions: p, cornerVertex } = mesh;
  const first = mesh.faceStart[face];
  const end = mesh.faceStart[face + 1];
  const o = 3 * cornerVertex[first];
  let nx = 0;
  let ny = 0;
  let nz = 0;
  for (let c = first; c < end; c++) {
    const i = 3 * cornerVertex[c];
    const j = 3 * cornerVertex[c + 1 < end ? c + 1 : first];
    // Relative to the first corner, so that a small face far from the origin keeps its digits.
    nx += (p[i + 1] - p[j + 1]) * (p[i + 2] + p[j + 2] - 2 * p[o + 2]);
    ny += (p[i + 2] - p[j + 2]) * (p[i] + p[j] - 2 * p[o]);
    nz += (p[i] - p[j]) * (p[i + 1] + p[j + 1] - 2 * p[o + 1]);
  }
  return [nx, ny, nz];
}

/** Unit normals of all faces, `3 × faceCount`; zero where a face has no area. */
export function faceNormals(mesh: Mesh): Float64Array {
  const normals = new Float64Array(3 * faceCount(mesh));
  for (let f = 0; f < faceCount(mesh); f++) {
    const n = faceNormal(mesh, f);
    const length = Math.hypot(...n) || 1;
    for (let k = 0; k < 3; k++) normals[3 * f + k] = n[k] / length;
  }
  return normals;
}

/** Unit normals of all vertices, `3 × vertexCount`: the area-weighted mean of the faces round each. */
export function vertexNormals(mesh: Mesh): Float64Array {
  const normals = new Float64Array(mesh.positions.length);
  for (let f = 0; f < faceCount(mesh); f++) {
    const [nx, ny, nz] = faceNormal(mesh, f);
    for (let c = mesh.faceStart[f]; c < mesh.faceStart[f + 1]; c++) {
      const i = 3 * mesh.cornerVertex[c];
      normals[i] += nx;
      normals[i + 1] += ny;
      normals[i + 2] += nz;
    }
  }
  for (let i = 0; i < normals.length; i += 3) {
    const length = Math.hypot(normals[i], normals[i + 1], normals[i + 2]) || 1;
    normals[i] /= length;
    normals[i + 1] /= length;
    normals[i + 2] /= length;
  }
  return normals;
}
