import { pinsOf } from '../../document/constraints.ts';
import { type HemDocument, shellOf, shellUv } from '../../document/document.ts';
import { chosenShells, shellsLabel } from '../../document/shellChoice.ts';
import { cornerUv, uvDifference } from '../../document/uvChange.ts';
import { HemError } from '../../errors.ts';
import { record, whichShells } from '../../params.ts';
import { plural } from '../../plural.ts';
import { triangleArea } from '../../surface/flatArea.ts';
import type { Shell } from '../../surface/shell.ts';
import { operation } from '../operation.ts';
import { solveAll } from './batches.ts';

/** Turns folded faces the right way up with the rest of their shells held: what a hand has folded is mended where it is. */
export const unfoldFolds = operation({
  name: 'unfold-folds',
  stage: 'unfold',
  params: record({ shells: whichShells }),
  label: ({ shells }, document) => `Unfold the folds of ${shellsLabel(document, shells)}`,
  doing: 'Unfolding folds',
  async run(document, { shells }, context) {
    const tasks = chosenShells(document, shells).flatMap((s) => foldedShell(document, s));
    if (tasks.length === 0)
      throw new HemError(
        'nothing-folded',
        'Nothing is folded here: no face lies the other way than its shell.',
      );
    const results = await solveAll('unfold-folds', tasks, (batch) => batch, context);
    const uvOf = new Map<number, Float64Array>();
    for (const [{ s }, uv] of results) if (uv) uvOf.set(s, uv);
    const left = tasks.length - uvOf.size;
    if (uvOf.size === 0) throw new HemError('cannot-unfold-folds', describeLeft(left));
    const moved = [...uvOf].reduce((sum, [s, uv]) => {
      const { start } = tasks.find((task) => task.s === s) as (typeof tasks)[number];
      return sum + countMoved(start, uv);
    }, 0);
    return {
      changes: [uvDifference(document, cornerUv(document, uvOf))],
      notes: [
        `Unfolded by moving ${plural(moved, 'point')}; the rest stayed.`,
        ...(left > 0 ? [describeLeft(left)] : []),
      ],
    };
  },
});

const describeLeft = (shells: number): string =>
  `The folds of ${plural(shells, 'shell')} are too large to be unfolded with the rest held: unfold ${shells === 1 ? 'it' : 'them'} anew.`;

/** A shell of which triangles lie the other way than most of it, with what holds. */
function foldedShell(document: HemDocument, s: number) {
  const shell = shellOf(document, s);
  const start = shellUv(document, shell);
  if (!start || !hasFolds(shell, start)) return [];
  const held = new Uint8Array(start.length / 2);
  for (const v of pinsOf(document, shell)) held[v] = 1;
  return [{ s, shell, start, held }];
}

function hasFolds({ triangles }: Shell, uv: Float64Array): boolean {
  let [up, down] = [0, 0];
  for (let t = 0; t < triangles.length / 3; t++) {
    const area = triangleArea(triangles, uv, t);
    if (area > 0) up++;
    else down++;
  }
  return up > 0 && down > 0;
}

function countMoved(before: Float64Array, after: Float64Array): number {
  let count = 0;
  for (let i = 0; i < before.length; i += 2)
    if (before[i] !== after[i] || before[i + 1] !== after[i + 1]) count++;
  return count;
}
