import { shellOf, shellUv } from '../document/document.ts';
import { chosenShells } from '../document/shellChoice.ts';
import { cornerUv } from '../document/uvChange.ts';
import { closeness } from '../operations/arrange/closeness.ts';
import { about, indices, record, tuple } from '../params.ts';
import { transformUv } from '../surface/similarity.ts';
import { question } from './question.ts';

/** The shells, by number, on which others would come to lie, or too near to them, if they were moved so. */
export const landing = question({
  name: 'landing',
  params: record({
    shells: about('shells, each by one of its faces', indices),
    matrix: about(
      "a, b, c, d, e, f, with u' = a u + c v + e and v' = b u + d v + f",
      tuple(6),
      'heights of a tile',
    ),
  }),
  byHand: true,
  answer(document, { shells, matrix }): readonly number[] {
    const chosen = chosenShells(document, shells);
    const uvOf = new Map<number, Float64Array>();
    for (const s of chosen) {
      const uv = shellUv(document, shellOf(document, s));
      if (uv) uvOf.set(s, transformUv(uv, matrix));
    }
    const close = closeness(document, cornerUv(document, uvOf));
    const found = new Set([...uvOf.keys()].flatMap((s) => close.closerTo(s, (other) => !uvOf.has(other))));
    return [...found].sort((a, b) => a - b);
  },
});
