import { faceCount, type Mesh } from './mesh.ts';
import { faceNormal } from './normals.ts';

/** Numbers that are told of each face. */
export const SAMPLE_WIDTH = 7;

/**
 * Some of the faces of a mesh, enough to draw it small: the middle of each, its unit normal, and the side of a square of its size times as many
 * faces as it stands for.
 *
 * @param most  faces
 * @returns `SAMPLE_WIDTH × count`
 */
export function sampleFaces(mesh: Mesh, most: number): Float32Array {
  const count = faceCount(mesh);
  const stride = Math.max(1, Math.ceil(count / most));
  const sampled = new Float32Array(SAMPLE_WIDTH * Math.ceil(count / stride));
  for (let f = 0, at = 0; f < count; f += stride, at += SAMPLE_WIDTH) {
    const [first, end] = [mesh.faceStart[f], mesh.faceStart[f + 1]];
    for (let c = first; c < end; c++)
      for (let k = 0; k < 3; k++)
        sampled[at + k] += mesh.positions[3 * mesh.cornerVertex[c] + k] / (end - first);
    const normal = faceNormal(mesh, f);
    const twice = Math.hypot(...normal);
    for (let k = 0; k < 3; k++) sampled[at + 3 + k] = twice > 0 ? normal[k] / twice : 0;
    sampled[at + 6] = Math.sqrt((twice / 2) * stride);
  }
  return sampled;
}
