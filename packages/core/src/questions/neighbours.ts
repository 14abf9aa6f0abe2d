import { topologyOf } from '../document/document.ts';
import { HemError } from '../errors.ts';
import { choice, record, whole } from '../params.ts';
import { question } from './question.ts';

/**
 * Where keys can go from an edge or a face: to edges at its ends and round its faces, or to faces beside it; none of them hidden.
 *
 * @returns an edge and a face for each: the edge and a face at it, or the face and the edge that leads there
 */
export const neighbours = question({
  name: 'neighbours',
  params: record({ target: choice('edges', 'faces'), of: whole(0, 2 ** 32 - 1) }),
  answer({ model, hidden }, { target, of }): readonly (readonly [edge: number, face: number])[] {
    const { mesh, links } = topologyOf(model);
    const { edgeCornerStart, edgeCorners, cornerFace, cornerEdge, edgeVertices } = links;
    const { vertexEdgeStart, vertexEdges } = links;
    const shownFaces = (edge: number): number[] => {
      const faces: number[] = [];
      for (let i = edgeCornerStart[edge]; i < edgeCornerStart[edge + 1]; i++)
        if (!hidden[cornerFace[edgeCorners[i]]]) faces.push(cornerFace[edgeCorners[i]]);
      return faces;
    };
    const edgesOf = (face: number): number[] => [
      ...cornerEdge.subarray(mesh.faceStart[face], mesh.faceStart[face + 1]),
    ];
    const total = target === 'edges' ? links.joined.length : mesh.faceStart.length - 1;
    if (of >= total) throw new HemError('no-such-element', `There is nothing with the number ${of}.`);
    if (target === 'faces') {
      return edgesOf(of).flatMap((edge) =>
        shownFaces(edge)
          .filter((face) => face !== of)
          .map((face) => [edge, face] as const),
      );
    }
    const found = new Set<number>();
    for (const v of edgeVertices.subarray(2 * of, 2 * of + 2))
      for (let i = vertexEdgeStart[v]; i < vertexEdgeStart[v + 1]; i++) found.add(vertexEdges[i]);
    for (const face of shownFaces(of)) for (const edge of edgesOf(face)) found.add(edge);
    found.delete(of);
    return [...found].flatMap((edge) =>
      shownFaces(edge)
        .slice(0, 1)
        .map((face) => [edge, face] as const),
    );
  },
});
