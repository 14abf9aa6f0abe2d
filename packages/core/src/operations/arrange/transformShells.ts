import { chosenShells } from '../../document/shellChoice.ts';
import { about, indices, record, tuple } from '../../params.ts';
import { plural } from '../../plural.ts';
import { transformUv, type UvMatrix } from '../../surface/similarity.ts';
import { operation } from '../operation.ts';
import { changedShells } from './changedShells.ts';

/** Moves, turns or scales shells on the texture. */
export const transformShells = operation({
  name: 'transform-shells',
  stage: 'arrange',
  params: record({
    shells: about('shells, each by one of its faces', indices),
    matrix: about(
      "a, b, c, d, e, f, with u' = a u + c v + e and v' = b u + d v + f",
      tuple(6),
      'heights of a tile',
    ),
  }),
  label: ({ shells, matrix }, document) =>
    `${verbOf(matrix)} ${plural(chosenShells(document, shells).length, 'shell')}`,
  doing: 'Moving shells',
  run: (document, { shells, matrix }) => changedShells(document, shells, (_, uv) => transformUv(uv, matrix)),
});

/** What a map of the flat does, in a word. */
export function verbOf([a, b, c, d]: UvMatrix): string {
  const determinant = a * d - b * c;
  if (determinant < 0) return 'Mirror';
  if (Math.abs(determinant - 1) > 1e-9) return 'Scale';
  return Math.abs(b) > 1e-9 || a < 0 ? 'Turn' : 'Move';
}
