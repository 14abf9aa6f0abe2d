import type { Mesh } from '../mesh/mesh.ts';
import { triangleAreas } from '../surface/areas.ts';

/** The triangles of a mesh, and which of their corners are one point of the flat. */
export interface FlatCorners {
  readonly mesh: Mesh;
  /** Corner of the mesh at each triangle corner, `3 × triangleCount`. */
  readonly triangleCorners: Uint32Array;
  /** Point of the flat at each corner of the mesh, and how many there are. */
  readonly cornerWedge: Uint32Array;
  readonly wedges: number;
}

/**
 * Averages values of triangles at the points of the flat, weighed by their area on the model.
 *
 * @returns a function of values, one a triangle, that gives values of triangle corners, `3 × triangleCount`; 0 where no triangle has area
 */
export function averageAtCorners({
  mesh: { positions, cornerVertex },
  triangleCorners,
  cornerWedge,
  wedges,
}: FlatCorners): (values: Float32Array) => Float32Array {
  const count = triangleCorners.length / 3;
  const vertices = triangleCorners.map((c) => cornerVertex[c]);
  const area = triangleAreas(positions, vertices);
  const wedge = triangleCorners.map((c) => cornerWedge[c]);
  const total = new Float64Array(wedges);
  for (let i = 0; i < wedge.length; i++) total[wedge[i]] += area[Math.floor(i / 3)];
  return (values) => {
    const sum = new Float64Array(wedges);
    for (let t = 0, i = 0; t < count; t++) {
      const weighed = area[t] * values[t];
      for (const end = i + 3; i < end; i++) sum[wedge[i]] += weighed;
    }
    for (let w = 0; w < wedges; w++) if (total[w] > 0) sum[w] /= total[w];
    const average = new Float32Array(wedge.length);
    for (let i = 0; i < wedge.length; i++) average[i] = sum[wedge[i]];
    return average;
  };
}
