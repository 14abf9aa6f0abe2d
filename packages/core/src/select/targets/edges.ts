import { grownEdges, shrunkEdges } from '../neighbourhood.ts';
import { pointAt } from './points.ts';
import { shownFacesAt, type Target } from './target.ts';

export const edges: Target<'edges'> = {
  id: 'edges',
  thing: ['edge', 'edges'],
  onModel({ links, hidden }, inside) {
    const found: number[] = [];
    for (let e = 0; e < links.joined.length; e++) {
      if (!inside[links.edgeVertices[2 * e]] || !inside[links.edgeVertices[2 * e + 1]]) continue;
      if (!hidden[links.cornerFace[links.edgeCorners[links.edgeCornerStart[e]]]]) found.push(e);
    }
    return found;
  },
  inFlat({ links, hidden }, inside) {
    const { joined, edgeCornerStart, edgeCorners, nextCorner, cornerFace } = links;
    const found: number[] = [];
    for (let e = 0; e < joined.length; e++) {
      for (let i = edgeCornerStart[e]; i < edgeCornerStart[e + 1]; i++) {
        const c = edgeCorners[i];
        if (!inside[c] || !inside[nextCorner[c]] || hidden[cornerFace[c]]) continue;
        found.push(e);
        break;
      }
    }
    return found;
  },
  verticesOf: ({ links }, edge) => links.edgeVertices.subarray(2 * edge, 2 * edge + 2),
  underBrush({ mesh, links }, faces, isIn) {
    const found = new Set<number>();
    for (const f of faces)
      for (let c = mesh.faceStart[f]; c < mesh.faceStart[f + 1]; c++) {
        const e = links.cornerEdge[c];
        if (isIn(links.edgeVertices[2 * e]) && isIn(links.edgeVertices[2 * e + 1])) found.add(e);
      }
    return [...found];
  },
  grow: ({ links }, items) => grownEdges(links, items),
  shrink: ({ links }, items) => shrunkEdges(links, items),
  /** At its ends, and round its faces. */
  beside(ground, edge) {
    const { mesh, links, shells } = ground;
    const { vertexEdgeStart, vertexEdges, edgeVertices, cornerEdge } = links;
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
  count: ({ links }) => links.joined.length,
};
