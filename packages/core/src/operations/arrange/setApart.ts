import { markChange } from '../../document/delta.ts';
import { current, type HemDocument, shellOf, shellsOf, uvOfShell } from '../../document/document.ts';
import { shellBoxes } from '../../document/layout.ts';
import { chosenShells, shellsLabel } from '../../document/shellChoice.ts';
import { stacksOf } from '../../document/stacks.ts';
import { cornerUv, uvDifference } from '../../document/uvChange.ts';
import { HemError } from '../../errors.ts';
import { about, choice, otherwise, record, whichShells } from '../../params.ts';
import { plural } from '../../plural.ts';
import { signedArea } from '../../surface/flatArea.ts';
import { facesOfShell } from '../../surface/shells.ts';
import { transformUv, type UvMatrix } from '../../surface/similarity.ts';
import { aspectOf } from '../../surface/tiles.ts';
import type { UvBox } from '../../surface/uvBox.ts';
import { operation } from '../operation.ts';
import { clearPlaces } from './clearPlaces.ts';
import { placedChange, placingNotes } from './keepPlaces.ts';

/** Shells that are stacked lie beside one another from now on, the right way round: the first of each stack stays. */
export const setApart = operation({
  name: 'set-apart',
  stage: 'arrange',
  params: record({
    shells: whichShells,
    where: about(
      'where the others of a stack go: to free space, the right way round, or by whole tiles to the right as they lie, so that a bake meets each texel once',
      otherwise(choice('free', 'tile'), 'free'),
    ),
  }),
  label: ({ shells, where }, document) =>
    `Set ${shellsLabel(document, shells)} apart${where === 'tile' ? ', by whole tiles' : ''}`,
  doing: 'Setting apart',
  run(document, { shells, where }) {
    const boxes = shellBoxes(document);
    const stacks = stacksOf(boxes, chosenShells(document, shells));
    if (stacks.length === 0)
      throw new HemError('nothing-stacked', 'None of these shells lies exactly on another of them.');
    const moved = stacks.flatMap(([, ...others]) => others);
    const { uv } = current(document);
    const uvOf = new Map<number, Float64Array>();
    for (const [, ...others] of stacks)
      others.forEach((s, i) => {
        const shell = shellOf(document, s);
        const own = uvOfShell(shell, uv);
        const map =
          where === 'tile'
            ? moveByTiles(document, i + 1)
            : uprightMap(boxes[s], signedArea(shell.triangles, own));
        uvOf.set(s, transformUv(own, map));
      });
    const next = cornerUv(document, uvOf);
    const notes = where === 'free' ? clearPlaces(document, next, moved) : [];
    const faces = moved.flatMap((s) => [...facesOfShell(shellsOf(document), s)]);
    return {
      changes: [
        uvDifference(document, next),
        // They are no stack any more.
        markChange(document, 'groups', faces, 0),
        placedChange(document, 1),
      ],
      notes: [
        `${plural(moved.length, 'shell')} of ${plural(stacks.length, 'stack')} set apart.`,
        ...notes,
        ...placingNotes(document),
      ],
    };
  },
});

const moveByTiles = ({ tiles }: HemDocument, count: number): UvMatrix => [
  1,
  0,
  0,
  1,
  count * aspectOf(tiles),
  0,
];

/** Mirrors a shell that lies upside down, in its place. */
const uprightMap = (box: UvBox | undefined, area: number): UvMatrix =>
  box && area < 0 ? [-1, 0, 0, 1, box[0] + box[2], 0] : [1, 0, 0, 1, 0, 0];
