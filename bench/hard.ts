import { measureStretch } from '../packages/core/src/measure/stretch.ts';
import { unattended } from '../packages/core/src/progress.ts';
import { relax } from '../packages/core/src/relax/relax.ts';
import type { Shell } from '../packages/core/src/surface/shell.ts';
import { glove, head, spikyBall, tentacle } from '../packages/core/src/testing/sculpts.ts';
import { horn, tube } from '../packages/core/src/testing/shapes.ts';
import { METHODS, unfoldShell } from '../packages/core/src/unfold/unfold.ts';
import type { Table } from './table.ts';

/** Least symmetric Dirichlet energy known: see reference/nearlyClosed.test.ts. */
const shells: [name: string, make: () => Shell, optimum?: number][] = [
  ['horn 40 × 12, 20 long', () => horn(40, 12, 20), 31.212],
  ['horn 60 × 12, 30 long', () => horn(60, 12, 30), 46.621],
  ['horn 200 × 12, 60 long', () => horn(200, 12, 60), 93.083],
  ['horn 400 × 24, 60 long', () => horn(400, 24, 60), 89.32],
  ['sleeve 65 × 16', () => tube(65, 16, 30)],
  ['head', () => head(60)],
  ['glove', () => glove(110)],
  ['ball with eight spikes', () => spikyBall(66)],
  ['tentacle', () => tentacle(90)],
];

/** Nearly closed shells, by both methods, each once, and relaxed. */
export function hard(): Table {
  const rows = shells.map(([name, make, optimum]) => {
    const shell = make();
    const row = [name, (shell.triangles.length / 3).toLocaleString('en')];
    let faults = 0;
    const energies: string[] = [];
    for (const method of METHODS) {
      const start = performance.now();
      const { uv } = unfoldShell(shell, method, unattended);
      row.push(((performance.now() - start) / 1000).toFixed(2));
      const { energyAfter, steps, uv: relaxed } = relax(shell, uv, {}, unattended);
      for (const map of [uv, relaxed]) {
        const { flipped, collapsed } = measureStretch(shell, map);
        faults += flipped + collapsed;
      }
      const told = optimum ? `${(energyAfter / optimum).toFixed(4)} ×` : energyAfter.toFixed(3);
      energies.push(`${told} (${steps})`);
    }
    return [...row, String(faults), energies.join(', ')];
  });
  return {
    title: 'Nearly closed shells',
    columns: [
      'shell',
      'triangles',
      'conformal, s',
      'angle-based, s',
      'flipped or collapsed',
      'relaxed, of the least known or as it is (steps)',
    ],
    rows,
  };
}
