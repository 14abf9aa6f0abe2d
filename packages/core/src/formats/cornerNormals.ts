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
  const faces = new Float64Array(3 * faceCount(mesh));
  const faceOf = new Uint32Array(mesh.cornerVertex.length);
  for (let f = 0; f + 1 < mesh.faceStart.length; f++) {
    faces.set(faceNormal(mesh, f), 3 * f);
    faceOf.fill(f, mesh.faceStart[f], mesh.faceStart[f + 1]);
  }
  const { start, items } = bucket(mesh.cornerVertex, vertexCount(mesh));
  const normals = new Float64Array(3 * mesh.cornerVertex.length);
  for (let v = 0; v + 1 < start.length; v++) {
    for (let i = start[v]; i < start[v + 1]; i++) {
      const c = items[i];
      const group = faceSmoothing[faceOf[c]];
      // The first corner of its group has the normal already, but for faces that stand alone.
      const same = group === 0 ? i : firstOf(group, start[v], i);
      if (same < i) {
        for (let k = 0; k < 3; k++) normals[3 * c + k] = normals[3 * items[same] + k];
        continue;
      }
      let [x, y, z] = [0, 0, 0];
      const [from, to] = group === 0 ? [i, i + 1] : [start[v], start[v + 1]];
      for (let j = from; j < to; j++) {
        const f = faceOf[items[j]];
        if (faceSmoothing[f] !== group) continue;
        x += faces[3 * f];
        y += faces[3 * f + 1];
        z += faces[3 * f + 2];
      }
      const length = Math.sqrt(x * x + y * y + z * z);
      normals[3 * c] = length > 0 ? x / length : 0;
      normals[3 * c + 1] = length > 0 ? y / length : 1; // no area, no direction: any unit vector is valid
      normals[3 * c + 2] = length > 0 ? z / length : 0;
    }
  }
  return normals;

  /** The first corner at a vertex of a smoothing group, no later than `last`. */
  function firstOf(group: number, first: number, last: number): number {
    let i = first;
    while (i < last && faceSmoothing[faceOf[items[i]]] !== group) i++;
    return i;
  }
}
