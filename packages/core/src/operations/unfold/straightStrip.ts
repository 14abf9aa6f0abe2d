import { keepsPlaces } from '../../document/constraints.ts';
import { markChange } from '../../document/delta.ts';
import { type HemDocument, shellOf, shellsOf } from '../../document/document.ts';
import { densityOf } from '../../document/layout.ts';
import { chosenShells, nameOfShell, shellsLabel } from '../../document/shellChoice.ts';
import { record, whichShells } from '../../params.ts';
import { plural } from '../../plural.ts';
import type { Shell } from '../../surface/shell.ts';
import { facesOfShell } from '../../surface/shells.ts';
import { transformUv } from '../../surface/similarity.ts';
import { NotAStripError } from '../../unfold/straightRows.ts';
import { upInFlat } from '../../unfold/upright.ts';
import { nearOldPlace, onBoard } from '../arrange/boardLayout.ts';
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
      if ('uv' in result) uvOf.set(s, squareTo(document, shell, result.uv, density));
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

/** Where a strip lies now, turned by right angles alone: as it was turned, or where it lay nowhere, with up upwards as nearly as can be. */
function squareTo(document: HemDocument, shell: Shell, uv: Float64Array, density: number): Float64Array {
  const turns = [0, 1, 2, 3].map((quarter) => {
    const [c, s] = [
      [1, 0],
      [0, 1],
      [-1, 0],
      [0, -1],
    ][quarter];
    return transformUv(uv, [c, s, -s, c, 0, 0]);
  });
  const upright = turns.reduce((best, each) => (upOf(each) > upOf(best) + 1e-9 ? each : best));
  if (!keepsPlaces(document)) return upright.map((x) => x * density);
  const near = nearOldPlace(document, shell, upright, density);
  const [cu, cv] = meanOf(near);
  const far = (each: Float64Array): number => {
    const [mu, mv] = meanOf(each);
    let sum = 0;
    for (let i = 0; i < each.length; i += 2)
      sum +=
        (density * (each[i] - mu) + cu - near[i]) ** 2 +
        (density * (each[i + 1] - mv) + cv - near[i + 1]) ** 2;
    return sum;
  };
  const nearest = turns.reduce((best, each) => (far(each) < far(best) * (1 - 1e-9) ? each : best));
  const [mu, mv] = meanOf(nearest);
  return transformUv(nearest, [density, 0, 0, density, cu - density * mu, cv - density * mv]);

  function upOf(each: Float64Array): number {
    const [u, v] = upInFlat(shell, each, document.upAxis);
    return v / (Math.hypot(u, v) || 1);
  }
}

function meanOf(uv: Float64Array): [number, number] {
  let [u, v] = [0, 0];
  for (let i = 0; i < uv.length; i += 2) {
    u += uv[i];
    v += uv[i + 1];
  }
  return [(2 * u) / uv.length, (2 * v) / uv.length];
}
