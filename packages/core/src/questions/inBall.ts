import { topologyOf } from '../document/document.ts';
import { about, choice, positive, record, tuple, whole } from '../params.ts';
import { TARGETS, targetOf } from '../select/targets/index.ts';
import { groundOf } from './ground.ts';
import { question } from './question.ts';

/** Points, edges, faces or shells that hang together with a face and lie within a ball about a place on it: what a brush covers. */
export const inBall = question({
  name: 'in-ball',
  params: record({
    target: about('what is looked for', choice(...TARGETS)),
    face: about('the face at its middle', whole()),
    at: about('its middle', tuple(3), 'model units'),
    radius: about('its radius', positive(), 'model units'),
  }),
  several: true,
  byHand: true,
  answer(document, { target, face, at, radius }): number[] {
    const { hidden } = document;
    const { mesh, connectivity } = topologyOf(document.model);
    const { faceStart, cornerVertex, positions } = mesh;
    const isIn = (v: number) => Math.hypot(...at.map((x, k) => positions[3 * v + k] - x)) <= radius;
    const corners = (f: number) => cornerVertex.subarray(faceStart[f], faceStart[f + 1]);
    const found = new Set([face]);
    const left = [face];
    for (let f = left.pop(); f !== undefined; f = left.pop()) {
      for (let c = faceStart[f]; c < faceStart[f + 1]; c++) {
        const e = connectivity.cornerEdge[c];
        for (let i = connectivity.edgeCornerStart[e]; i < connectivity.edgeCornerStart[e + 1]; i++) {
          const g = connectivity.cornerFace[connectivity.edgeCorners[i]];
          if (found.has(g) || hidden[g] || !corners(g).some(isIn)) continue;
          found.add(g);
          left.push(g);
        }
      }
    }
    return targetOf(target).underBrush(groundOf(document), [...found], isIn);
  },
});
