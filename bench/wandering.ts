import type { Mesh } from '../packages/core/src/mesh/mesh.ts';
import { meshOfShell } from '../packages/core/src/surface/cutShell.ts';
import { glove, head, tentacle } from '../packages/core/src/testing/sculpts.ts';
import { cube, horn, sheet, torus, tube } from '../packages/core/src/testing/shapes.ts';
import { seeded, wander } from '../packages/core/src/testing/wander.ts';
import type { Table } from './table.ts';

const shapes: [name: string, make: () => Mesh][] = [
  ['cube', cube],
  ['hill of quads', () => sheet(8, 8, (i, j) => [j, 4 * Math.exp(-((i - 4) ** 2 + (j - 4) ** 2) / 5), i])],
  ['torus', () => torus(10, 8)],
  ['horn', () => meshOfShell(horn(40, 8, 18))],
  ['sleeve', () => meshOfShell(tube(40, 8, 15))],
  ['head', () => meshOfShell(head(16))],
  ['glove', () => meshOfShell(glove(36))],
  ['tentacle', () => meshOfShell(tentacle(40))],
];
const ACTS = 50;

/** Random acts on many shapes: see testing/wander.ts. `--large` walks ten times as often, which takes an hour or so; each model is told when it is done. */
export async function wandering(large: boolean): Promise<Table> {
  const rows: string[][] = [];
  const walks = large ? 20 : 2;
  for (const [name, make] of shapes) {
    let [done, refused, faults] = [0, 0, 0];
    for (let walk = 0; walk < walks; walk++) {
      try {
        const found = await wander(make(), ACTS, seeded(1000 * walk + 7));
        done += found.done;
        refused += found.refused;
      } catch (error) {
        faults++;
        process.stderr.write(`${name}, walk ${walk}: ${(error as Error).message}\n`);
      }
    }
    rows.push([name, String(walks * ACTS), String(done), String(refused), String(faults)]);
    process.stderr.write(`${rows[rows.length - 1].join(', ')}\n`);
  }
  return {
    title: 'Random acts',
    columns: ['model', 'acts', 'that stand', 'refused with a sentence', 'walks with a fault'],
    rows,
  };
}
