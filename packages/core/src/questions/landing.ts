import { shellOf, shellUv } from '../document/document.ts';
import { nearestShell } from '../document/nearShells.ts';
import { chosenShells } from '../document/shellChoice.ts';
import { cornerUv } from '../document/uvChange.ts';
import { closeness } from '../operations/arrange/closeness.ts';
import { about, indices, record, tuple } from '../params.ts';
import { transformUv } from '../surface/similarity.ts';
import { question } from './question.ts';

/** Shells that are farther than this, heights of a tile, are not told. */
const NEAR = 0.25;

/** Where shells would come to lie if they were moved so. */
export interface Landing {
  /** The shells, by number, on which they would come to lie, or too near to them. */
  readonly onto: readonly number[];
  /** The shell that is nearest to them, by number, and how far it is, heights of a tile; undefined where none is near. */
  readonly nearest?: { readonly shell: number; readonly far: number };
}

/** On what shells would come to lie if they were moved so, and how far the nearest other would be. */
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
  answer(document, { shells, matrix }): Landing {
    const chosen = chosenShells(document, shells);
    const uvOf = new Map<number, Float64Array>();
    for (const s of chosen) {
      const uv = shellUv(document, shellOf(document, s));
      if (uv) uvOf.set(s, transformUv(uv, matrix));
    }
    const next = cornerUv(document, uvOf);
    const close = closeness(document, next);
    const found = new Set([...uvOf.keys()].flatMap((s) => close.closerTo(s, (other) => !uvOf.has(other))));
    const onto = [...found].sort((a, b) => a - b);
    return { onto, nearest: nearestShell(document, [...uvOf.keys()], next, NEAR) };
  },
});
