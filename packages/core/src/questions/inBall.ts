import { topologyOf } from '../document/document.ts';
import { choice, positive, record, tuple, whole } from '../params.ts';
import { question } from './question.ts';

/** Edges or faces that hang together with a face and lie within a ball about a place on it: what a brush covers. */
export const inBall = question({
  name: 'in-ball',
  params: record({ target: choice('edges', 'faces'), face: whole(), at: tuple(3), radius: positive() }),
  several: true,
  answer({ model, hidden }, { target, face, at, radius }): number[] {
    const { mesh, links } = topologyOf(model);
    const { faceStart, cornerVertex, positions } = mesh;
    const isIn = (v: number) => Math.hypot(...at.map((x, k) => positions[3 * v + k] - x)) <= radius;
    const corners = (f: number) => cornerVertex.subarray(faceStart[f], faceStart[f + 1]);
    const found = new Set([face]);
    const left = [face];
    for (let f = left.pop(); f !== undefined; f = left.pop()) {
      for (let c = faceStart[f]; c < faceStart[f + 1]; c++) {
        const e = links.cornerEdge[c];
        for (let i = links.edgeCornerStart[e]; i < links.edgeCornerStart[e + 1]; i++) {
          const g = links.cornerFace[links.edgeCorners[i]];
          if (found.has(g) || hidden[g] || !corners(g).some(isIn)) continue;
          found.add(g);
          left.push(g);
        }
      }
    }
    if (target === 'faces') return [...found];
    const edges = new Set<number>();
    for (const f of found)
      for (let c = faceStart[f]; c < faceStart[f + 1]; c++) {
        const e = links.cornerEdge[c];
        if (isIn(links.edgeVertices[2 * e]) && isIn(links.edgeVertices[2 * e + 1])) edges.add(e);
      }
    return [...edges];
  },
});
