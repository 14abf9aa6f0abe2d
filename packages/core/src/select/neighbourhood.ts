import type { Connectivity } from '../mesh/connectivity.ts';
import type { Mesh } from '../mesh/mesh.ts';

/** Faces with what touches them at a corner. */
export function grownFaces({ faceStart, cornerVertex }: Mesh, faces: Iterable<number>): number[] {
  const vertices = new Set<number>();
  for (const f of faces) for (let c = faceStart[f]; c < faceStart[f + 1]; c++) vertices.add(cornerVertex[c]);
  const found: number[] = [];
  for (let f = 0; f + 1 < faceStart.length; f++)
    if (cornerVertex.subarray(faceStart[f], faceStart[f + 1]).some((v) => vertices.has(v))) found.push(f);
  return found;
}

/** Faces without those that touch others, or the end of the mesh, at a corner. */
export function shrunkFaces(
  mesh: Mesh,
  { isInterior, edgeVertices }: Connectivity,
  faces: Iterable<number>,
): number[] {
  const { faceStart, cornerVertex } = mesh;
  const chosen = new Set(faces);
  const outside = new Set<number>();
  for (let f = 0; f + 1 < faceStart.length; f++)
    if (!chosen.has(f)) for (let c = faceStart[f]; c < faceStart[f + 1]; c++) outside.add(cornerVertex[c]);
  for (let e = 0; e < isInterior.length; e++)
    if (!isInterior[e]) for (let k = 0; k < 2; k++) outside.add(edgeVertices[2 * e + k]);
  return [...chosen].filter((f) => {
    for (let c = faceStart[f]; c < faceStart[f + 1]; c++) if (outside.has(cornerVertex[c])) return false;
    return true;
  });
}

/** Edges with what meets them at an end. */
export function grownEdges(
  { edgeVertices, vertexEdges, vertexEdgeStart }: Connectivity,
  edges: Iterable<number>,
): number[] {
  const grown = new Set(edges);
  for (const e of [...grown])
    for (let k = 0; k < 2; k++) {
      const v = edgeVertices[2 * e + k];
      for (let i = vertexEdgeStart[v]; i < vertexEdgeStart[v + 1]; i++) grown.add(vertexEdges[i]);
    }
  return [...grown];
}

/** Edges without those that have an end to themselves, or meet others that are not chosen at both. */
export function shrunkEdges(
  { edgeVertices, vertexEdges, vertexEdgeStart }: Connectivity,
  edges: Iterable<number>,
): number[] {
  const chosen = new Set(edges);
  const at = (v: number): number => {
    let count = 0;
    for (let i = vertexEdgeStart[v]; i < vertexEdgeStart[v + 1]; i++) if (chosen.has(vertexEdges[i])) count++;
    return count;
  };
  return [...chosen].filter((e) => at(edgeVertices[2 * e]) > 1 && at(edgeVertices[2 * e + 1]) > 1);
}
