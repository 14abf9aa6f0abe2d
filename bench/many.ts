import { measureStretch } from '@blunt-hem/core/measure/stretch';
import { unattended } from '@blunt-hem/core/progress';
import { relax } from '@blunt-hem/core/relax/relax';
import type { Shell } from '@blunt-hem/core/surface/shell';
import { METHODS, unfoldShell } from '@blunt-hem/core/unfold/unfold';
import { openedShells, openModels } from '../packages/core/reference/openModels.ts';
import { patches, toadShells } from './shapes.ts';
import { count, type Table, time } from './table.ts';

/** Every shell of the demo and of the data sets, by every method and relaxed: how many flips and repairs. */
export async function flips(large: boolean): Promise<Table> {
  const sets: [string, Shell[]][] = [
    ['toad', toadShells()],
    ['bunny', await openedShells(openModels.bunny())],
    ['teapot', await openedShells(openModels.teapot())],
    ['dragon', await openedShells(openModels.dragon())],
    ...(large
      ? ([['dragon, finer', await openedShells(openModels.fineDragon())]] as [string, Shell[]][])
      : []),
    ['patches', patches(200)],
  ];
  const rows = sets.flatMap(([name, shells]) =>
    METHODS.map((method) => {
      let [bad, repaired, triangles] = [0, 0, 0];
      const judge = (shell: Shell, uv: Float64Array) => {
        const { flipped, collapsed } = measureStretch(shell, uv);
        bad += flipped + collapsed;
      };
      for (const shell of shells) {
        triangles += shell.triangles.length / 3;
        const unfolded = unfoldShell(shell, method, unattended);
        if (unfolded.repaired) repaired++;
        judge(shell, unfolded.uv);
        judge(shell, relax(shell, unfolded.uv, { steps: 20 }, unattended).uv);
      }
      return [name, method, count(shells.length), count(triangles), `${repaired}`, `${bad}`];
    }),
  );
  return {
    title: 'Flipped and collapsed faces, unfolded and relaxed',
    columns: ['shells of', 'method', 'shells', 'triangles', 'repaired', 'flips'],
    rows,
  };
}

/** Many small shells against one large one of as many triangles. */
export function smallShells(): Table {
  const rows = [500, 5_000].map((many) => {
    const shells = patches(many);
    const took = time(1, () => {
      for (const shell of shells) unfoldShell(shell, 'conformal', unattended);
    });
    return [count(many), count(128 * many), took.toFixed(2), ((1000 * took) / many).toFixed(3)];
  });
  return {
    title: 'Many small shells, conformal, one after the other in one worker',
    columns: ['shells', 'triangles', 'seconds', 'ms a shell'],
    rows,
  };
}
