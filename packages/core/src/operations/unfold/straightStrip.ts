import { markChange } from '../../document/delta.ts';
import { shellOf, shellsOf } from '../../document/document.ts';
import { densityOf } from '../../document/layout.ts';
import { chosenShells, nameOfShell, shellsLabel } from '../../document/shellChoice.ts';
import { record, whichShells } from '../../params.ts';
import { plural } from '../../plural.ts';
import { facesOfShell } from '../../surface/shells.ts';
import { NotAStripError } from '../../unfold/straightRows.ts';
import { onBoard } from '../arrange/boardLayout.ts';
import { squareToBoard } from '../arrange/squareToBoard.ts';
import { operation } from '../operation.ts';
import { solveAll } from './batches.ts';

/** Lays shells out as straight strips at one texture scale: pipes that are cut lengthwise, belts, treads and hems. */
export const straightStrip = operation({
  name: 'straight-strip',
  stage: 'unfold',
  params: record({ shells: whichShells }),
  label: ({ shells }, document) => `Lay ${shellsLabel(document, shells)} straight`,
  doing: 'Laying strips straight',
  trial: (document, { shells }) => chosenShells(document, shells),
  async run(document, { shells: which }, context) {
    const tasks = chosenShells(document, which).map((s) => ({ s, shell: shellOf(document, s) }));
    const { cornerVertex } = document.model.mesh;
    const results = await solveAll(
      'straight-strips',
      tasks,
      (batch) => batch.map(({ shell }) => ({ shell, cornerVertex })),
      context,
    );
    const density = densityOf(document) ?? 1;
    const uvOf = new Map<number, Float64Array>();
    const refused: { readonly s: number; readonly problem: string; readonly faces: readonly number[] }[] = [];
    for (const [{ s, shell }, result] of results)
      if ('uv' in result) uvOf.set(s, squareToBoard(document, shell, result.uv, density));
      else refused.push({ s, ...result });
    if (uvOf.size === 0) {
      const [{ problem, faces }] = refused;
      throw new NotAStripError(problem, [...faces, ...refused.map(({ s }) => nameOfShell(document, s))]);
    }
    const { change, notes: placing } = onBoard(document, uvOf);
    const faces = [...uvOf.keys()].flatMap((s) => [...facesOfShell(shellsOf(document), s)]);
    const left =
      refused.length > 0
        ? [`${plural(refused.length, 'shell')} left as they are. ${refused[0].problem}`]
        : [];
    return {
      changes: [change, markChange(document, 'stale', faces, 0), markChange(document, 'relaxed', faces, 0)],
      notes: [...left, ...placing],
    };
  },
});
