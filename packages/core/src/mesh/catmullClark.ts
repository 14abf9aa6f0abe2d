import { connectivityOf } from './connectivity.ts';
import { faceCount, type Mesh, vertexCount } from './mesh.ts';

export interface Subdivided {
  readonly mesh: Mesh;
  /** Where the middle of each edge of the old mesh went: a vertex of the new one. Old vertices keep their numbers. */
  readonly edgePoint: Uint32Array;
}

/**
 * One level of Catmull–Clark subdivision (Catmull and Clark 1978); borders are cubic B-splines. Every n-gon
 * becomes n quads, in its corners' order.
 */
export function catmullClark(mesh: Mesh): Subdivided {
  const connectivity = connectivityOf(mesh);
  const { positions, cornerVertex, faceStart } = mesh;
  const [vertices, edges, faces] = [vertexCount(mesh), connectivity.isInterior.length, faceCount(mesh)];
  const out = new Float64Array(3 * (vertices + edges + faces));
  const edgeAt = (e: number) => 3 * (vertices + e);
  const faceAt = (f: number) => 3 * (vertices + edges + f);

  for (let f = 0; f < faces; f++) {
    const size = faceStart[f + 1] - faceStart[f];
    for (let c = faceStart[f]; c < faceStart[f + 1]; c++) {
      for (let k = 0; k < 3; k++) out[faceAt(f) + k] += positions[3 * cornerVertex[c] + k] / size;
    }
  }
  for (let e = 0; e < edges; e++) {
    const [a, b] = [3 * connectivity.edgeVertices[2 * e], 3 * connectivity.edgeVertices[2 * e + 1]];
    for (let k = 0; k < 3; k++) {
      let point = 0.5 * (positions[a + k] + positions[b + k]);
      if (connectivity.isInterior[e]) {
        const first = connectivity.edgeCornerStart[e];
        const f = faceAt(connectivity.cornerFace[connectivity.edgeCorners[first]]) + k;
        const g = faceAt(connectivity.cornerFace[connectivity.edgeCorners[first + 1]]) + k;
        point = 0.5 * point + 0.25 * (out[f] + out[g]);
      }
      out[edgeAt(e) + k] = point;
    }
  }
  moveVertices(mesh, connectivity, out, edgeAt, faceAt);

  const newStart = new Uint32Array(cornerVertex.length + 1);
  const newCorners = new Uint32Array(4 * cornerVertex.length);
  for (let c = 0; c < cornerVertex.length; c++) {
    const f = connectivity.cornerFace[c];
    const before = c === faceStart[f] ? faceStart[f + 1] - 1 : c - 1;
    newStart[c + 1] = 4 * (c + 1);
    newCorners[4 * c] = cornerVertex[c];
    newCorners[4 * c + 1] = vertices + connectivity.cornerEdge[c];
    newCorners[4 * c + 2] = vertices + edges + f;
    newCorners[4 * c + 3] = vertices + connectivity.cornerEdge[before];
  }
  return {
    mesh: { positions: out, faceStart: newStart, cornerVertex: newCorners },
    edgePoint: Uint32Array.from({ length: edges }, (_, e) => vertices + e),
  };
}

function moveVertices(
  mesh: Mesh,
  connectivity: ReturnType<typeof connectivityOf>,
  out: Float64Array,
  edgeAt: (e: number) => number,
  faceAt: (f: number) => number,
): void {
  const { positions } = mesh;
  for (let v = 0; v < vertexCount(mesh); v++) {
    const around = connectivity.vertexEdges.subarray(
      connectivity.vertexEdgeStart[v],
      connectivity.vertexEdgeStart[v + 1],
    );
    const borders = around.filter((e) => !connectivity.isInterior[e]);
    for (let k = 0; k < 3; k++) {
      const own = positions[3 * v + k];
      if (borders.length === 2) {
        out[3 * v + k] = 0.5 * own + 0.25 * (out[edgeAt(borders[0]) + k] + out[edgeAt(borders[1]) + k]);
      } else if (borders.length > 0 || around.length === 0) {
        out[3 * v + k] = own;
      } else {
        // (Q + 2R + (n − 3)S) / n with Q the mean face point and R the mean edge midpoint.
        const n = around.length;
        let [q, r] = [0, 0];
        for (const e of around) {
          const first = connectivity.edgeCornerStart[e];
          const f = faceAt(connectivity.cornerFace[connectivity.edgeCorners[first]]) + k;
          const g = faceAt(connectivity.cornerFace[connectivity.edgeCorners[first + 1]]) + k;
          q += (0.5 * (out[f] + out[g])) / n;
          const far = connectivity.edgeVertices[2 * e] + connectivity.edgeVertices[2 * e + 1] - v;
          r += (0.5 * (own + positions[3 * far + k])) / n;
        }
        out[3 * v + k] = (q + 2 * r + (n - 3) * own) / n;
      }
    }
  }
}
