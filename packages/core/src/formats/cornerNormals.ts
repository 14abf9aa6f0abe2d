import { bucket } from '../mesh/connectivity.ts';
import { faceCount, vertexCount } from '../mesh/mesh.ts';
import type { Model } from '../mesh/model.ts';
import { faceNormal } from '../mesh/normals.ts';

/**
 * Unit normals for shading, `3 × cornerCount`: within one smoothing group the area-weighted mean of the faces
 * round a vertex; a face with smoothing off keeps its own. Where a file says nothing, everything is smooth.
 */
export function cornerNormals(model: Model): Float64Array {
  const { mesh, faceSmoothing } = model;
  const faces = Array.from({ length: faceCount(mesh) }, (_, f) => faceNormal(mesh, f));
  const faceOf = new Uint32Array(mesh.cornerVertex.length);
  for (let f = 0; f < faces.length; f++) faceOf.fill(f, mesh.faceStart[f], mesh.faceStart[f + 1]);
  const round = bucket(mesh.cornerVertex, vertexCount(mesh));
  const normals = new Float64Array(3 * mesh.cornerVertex.length);
  for (let v = 0; v < vertexCount(mesh); v++) {
    const corners = round.items.subarray(round.start[v], round.start[v + 1]);
    for (const c of corners) {
      const group = faceSmoothing[faceOf[c]];
      const sum = [0, 0, 0];
      for (const other of group === 0 ? [c] : corners) {
        if (faceSmoothing[faceOf[other]] !== group) continue;
        for (let k = 0; k < 3; k++) sum[k] += faces[faceOf[other]][k];
      }
      const length = Math.hypot(...sum);
      if (length > 0) for (let k = 0; k < 3; k++) normals[3 * c + k] = sum[k] / length;
      else normals[3 * c + 1] = 1; // no area, no direction: any unit vector is valid
    }
  }
  return normals;
}
