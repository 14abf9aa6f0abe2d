import { FALLOFFS, type PulledShell, pulledShells, pulledUv } from '../document/pulledShells.ts';
import { type ShellPicture, shellPicture } from '../document/shellPicture.ts';
import { cornerOf, placeInFace } from '../operations/unfold/handles.ts';
import { about, choice, list, number, record, tuple } from '../params.ts';
import { question } from './question.ts';

/** What was pulled last: a hand moves the same points again and again. */
interface Pulled {
  readonly key: string;
  readonly shells: readonly PulledShell[];
}

/** How shells would lie if points of theirs were moved, turned or scaled, and what lies near them less and less. */
export const pulledPoints = question({
  name: 'pulled-points',
  params: record({
    places: about('places of the flat, each by a vertex and a face at it', list(placeInFace, { min: 1 })),
    matrix: about(
      "a, b, c, d, e, f, with u' = a u + c v + e and v' = b u + d v + f",
      tuple(6),
      'heights of a tile',
    ),
    radius: about('distance along the surface within which others go along', number(0), 'heights of a tile'),
    falloff: about('how that lessens', choice(...FALLOFFS)),
  }),
  byHand: true,
  answer(document, { places, matrix, radius, falloff }, context): ShellPicture {
    const key = `${radius} ${falloff} ${places.map(({ vertex, face }) => `${vertex}/${face}`).join()}`;
    const last = context.cache?.get('pulled-points', document) as Pulled | undefined;
    const shells =
      last?.key === key
        ? last.shells
        : pulledShells(
            document,
            places.map(({ vertex, face }) => cornerOf(document.model.mesh, vertex, face)),
            radius,
            falloff,
          );
    context.cache?.put('pulled-points', { document, value: { key, shells } });
    return shellPicture(document, new Map(shells.map((shell) => [shell.s, pulledUv(shell, matrix)])));
  },
});
