import { grownEdges, shrunkEdges } from '../neighbourhood.ts';
import { pointAt } from './points.ts';
import { shownFacesAt, type Target } from './target.ts';

export const edges: Target<'edges'> = {
  id: 'edges',
  thing: ['edge', 'edges'],
  onModel({ connectivity, hidden }, inside) {
    const found: number[] = [];
    for (let e = 0; e < connectivity.isInterior.length; e++) {
      if (!inside[connectivity.edgeVertices[2 * e]] || !inside[connectivity.edgeVertices[2 * e + 1]])
        continue;
      if (!hidden[connectivity.cornerFace[connectivity.edgeCorners[connectivity.edgeCornerStart[e]]]])
        found.push(e);
    }
    return found;
  },
  inFlat({ connectivity, hidden }, inside) {
    const { isInterior, edgeCornerStart, edgeCorners, nextCorner, cornerFace } = connectivity;
    const found: number[] = [];
    for (let e = 0; e < isInterior.length; e++) {
      for (let i = edgeCornerStart[e]; i < edgeCornerStart[e + 1]; i++) {
        const c = edgeCorners[i];
        if (!inside[c] || !inside[nextCorner[c]] || hidden[cornerFace[c]]) continue;
        found.push(e);
        break;
      }
    }
    return found;
  },
  verticesOf: ({ connectivity }, edge) => connectivity.edgeVertices.subarray(2 * edge, 2 * edge + 2),
  underBrush({ mesh, connectivity }, faces, isIn) {
    const found = new Set<number>();
    for (const f of faces)
      for (let c = mesh.faceStart[f]; c < mesh.faceStart[f + 1]; c++) {
        const e = connectivity.cornerEdge[c];
        if (isIn(connectivity.edgeVertices[2 * e]) && isIn(connectivity.edgeVertices[2 * e + 1]))
          found.add(e);
      }
    return [...found];
  },
  grow: ({ connectivity }, items) => grownEdges(connectivity, items),
  shrink: ({ connectivity }, items) => shrunkEdges(connectivity, items),
  /** At its ends, and round its faces. */
  neighbours(ground, edge) {
    const { mesh, connectivity, shells } = ground;
    const { vertexEdgeStart, vertexEdges, edgeVertices, cornerEdge } = connectivity;
    const found = new Set<number>();
    for (const v of edgeVertices.subarray(2 * edge, 2 * edge + 2))
      for (let i = vertexEdgeStart[v]; i < vertexEdgeStart[v + 1]; i++) found.add(vertexEdges[i]);
    for (const face of shownFacesAt(ground, edge))
      for (const other of cornerEdge.subarray(mesh.faceStart[face], mesh.faceStart[face + 1]))
        found.add(other);
    found.delete(edge);
    return [...found].flatMap((other) =>
      shownFacesAt(ground, other)
        .slice(0, 1)
        .map((face) => ({ edge: other, face, point: pointAt(shells, mesh.faceStart[face]) })),
    );
  },
  count: ({ connectivity }) => connectivity.isInterior.length,
};
