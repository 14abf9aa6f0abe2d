import { current, type HemDocument } from '../document/document.ts';
import { about, choice, record, type Taken, tuple } from '../params.ts';
import { TARGETS, targetOf } from '../select/targets/index.ts';
import { groundOf } from './ground.ts';
import { question } from './question.ts';

const params = record({
  target: about('what is looked for', choice(...TARGETS)),
  rectangle: about('left, bottom, right, top', tuple(4), 'heights of a tile'),
});

/** Points, edges, faces or shells in a rectangle of the Board: edges of which a side lies in it, faces with all corners, shells with a face. */
export const inBoardBox = question({
  name: 'in-board-box',
  params,
  byHand: true,
  answer: (document, query): number[] =>
    targetOf(query.target).inFlat(groundOf(document), cornersInBox(document, query)),
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
