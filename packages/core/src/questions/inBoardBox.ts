import { current, type HemDocument, shellsOf, topologyOf } from '../document/document.ts';
import { choice, record, type Taken, tuple } from '../params.ts';
import { TARGETS } from '../select/target.ts';
import { shellsWhere } from '../surface/shells.ts';
import { question } from './question.ts';

const params = record({
  target: choice(...TARGETS),
  /** In u and v: left, bottom, right, top. */
  rectangle: tuple(4),
});

/** Edges, faces or shells in a rectangle of the Board: edges of which a side lies in it, faces and shells with all corners or a face. */
export const inBoardBox = question({
  name: 'in-board-box',
  params,
  answer(document, query): number[] {
    const inside = cornersInBox(document, query);
    if (query.target === 'edges') return edgesIn(document, inside);
    const { faceStart } = document.model.mesh;
    const isIn = (f: number): boolean => {
      if (document.hidden[f]) return false;
      for (let c = faceStart[f]; c < faceStart[f + 1]; c++) if (!inside[c]) return false;
      return true;
    };
    if (query.target === 'shells') return shellsWhere(shellsOf(document), isIn);
    return [...document.hidden.keys()].filter(isIn);
  },
});

/** 1 for each corner that lies in the rectangle. */
function cornersInBox(document: HemDocument, { rectangle }: Taken<typeof params>): Uint8Array {
  const { uv } = current(document);
  const [left, bottom, right, top] = rectangle;
  return Uint8Array.from({ length: uv.length / 2 }, (_, c) => {
    const [u, v] = [uv[2 * c], uv[2 * c + 1]];
    return u >= left && u <= right && v >= bottom && v <= top ? 1 : 0;
  });
}

function edgesIn(document: HemDocument, inside: Uint8Array): number[] {
  const { joined, edgeCornerStart, edgeCorners, nextCorner, cornerFace } = topologyOf(document.model).links;
  const found: number[] = [];
  for (let e = 0; e < joined.length; e++) {
    for (let i = edgeCornerStart[e]; i < edgeCornerStart[e + 1]; i++) {
      const c = edgeCorners[i];
      if (!inside[c] || !inside[nextCorner[c]] || document.hidden[cornerFace[c]]) continue;
      found.push(e);
      break;
    }
  }
  return found;
}
