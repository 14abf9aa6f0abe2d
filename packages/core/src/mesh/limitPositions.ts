import { catmullClark } from './catmullClark.ts';
import { connectivityOf } from './connectivity.ts';
import { type Mesh, vertexCount } from './mesh.ts';

/**
 * Where the vertices of a cage lie on its Catmull–Clark surface: (n² v + 4 Σ e + Σ f) / n (n + 5) round an inner vertex with
 * n edges, after one level so that every face is a quad (Halstead, Kass, DeRose 1993); borders are cubic B-splines,
 * (e₁ + 4 v + e₂) / 6.
 *
 * @returns xyz per cage vertex, `3 × vertexCount`: the surface a solver should flatten when the cage is rendered smooth
 */
export function limitPositions(cage: Mesh): Float64Array {
  const { mesh } = catmullClark(cage);
  const { positions, cornerVertex } = mesh;
  const connectivity = connectivityOf(mesh);
  const limit = new Float64Array(3 * vertexCount(cage));
  // Corner 2 of every small quad is the one across from its cage vertex, corner 0.
  const across = new Float64Array(limit.length);
  for (let c = 0; c < cornerVertex.length; c += 4) {
    for (let k = 0; k < 3; k++) across[3 * cornerVertex[c] + k] += positions[3 * cornerVertex[c + 2] + k];
  }
  for (let v = 0; 3 * v < limit.length; v++) {
    const around = connectivity.vertexEdges.subarray(
      connectivity.vertexEdgeStart[v],
      connectivity.vertexEdgeStart[v + 1],
    );
    const borders = around.filter((e) => !connectivity.isInterior[e]);
    const edges = borders.length === 2 ? borders : around;
    const n = edges.length;
    for (let k = 0; k < 3; k++) {
      const own = positions[3 * v + k];
      let sum = 0;
      for (const e of edges)
        sum +=
          positions[3 * (connectivity.edgeVertices[2 * e] + connectivity.edgeVertices[2 * e + 1] - v) + k];
      limit[3 * v + k] =
        borders.length === 2
          ? (sum + 4 * own) / 6
          : borders.length > 0 || n === 0
            ? own
            : (n * n * own + 4 * sum + across[3 * v + k]) / (n * (n + 5));
    }
  }
  return limit;
}
