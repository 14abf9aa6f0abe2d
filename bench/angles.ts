import { measureStretch } from '@blunt-hem/core/measure/stretch';
import { unattended } from '@blunt-hem/core/progress';
import { borders } from '@blunt-hem/core/surface/borders';
import type { Shell } from '@blunt-hem/core/surface/shell';
import { farthestPair } from '@blunt-hem/core/unfold/farthestPair';
import { unfoldShell } from '@blunt-hem/core/unfold/unfold';
import { openedShells, openModels } from '../packages/core/reference/openModels.ts';
import { distance } from '../packages/core/src/mesh/distance.ts';
import { cap, hills, horn, toadShells } from './shapes.ts';
import { count, ratio, seconds, type Table, time } from './table.ts';

export function angleBasedSpeed(large: boolean): Table {
  const sizes = [20_000, 100_000, ...(large ? [500_000] : [])];
  const shells: [string, Shell][] = sizes.map((size) => ['cap', cap(size)]);
  shells.push(['hills', hills(100)]);
  unfoldShell(cap(20_000), 'angle-based', unattended); // compile
  return {
    title: 'Angle-based against conformal',
    columns: ['shell', 'triangles', 'angle-based, s', 'conformal, s', 'ratio'],
    rows: shells.map(([name, shell]) => {
      const took = (method: 'angle-based' | 'conformal') =>
        time(3, () => unfoldShell(shell, method, unattended));
      const [angleBased, conformal] = [took('angle-based'), took('conformal')];
      return [
        name,
        count(shell.triangles.length / 3),
        seconds(angleBased),
        seconds(conformal),
        ratio(angleBased, conformal),
      ];
    }),
  };
}

/** What each method leaves, before any relaxing: mean angular deformation and how far areas are off. */
export async function quality(): Promise<Table> {
  const toad = toadShells();
  const [bunny] = await openedShells(openModels.bunny());
  const [teapot] = await openedShells(openModels.teapot());
  const dragon = await openedShells(openModels.dragon());
  const shells: [string, Shell][] = [
    ['hills', hills(60)],
    ['horn', horn(120)],
    ['cap', cap(10_000)],
    ['toad, largest shell', toad[0]],
    ['toad, the sixth', toad[5]],
    ['toad, the second, a limb with one opening', toad[1]],
    ['bunny, cut open', bunny],
    ['teapot, largest piece', teapot],
    ['dragon, largest piece', dragon[0]],
    ['dragon, the third', dragon[2]],
  ];
  return {
    title: 'What each method leaves: angle in degrees / area factor',
    columns: ['shell', 'triangles', 'LSCM, two pins', 'conformal (spectral)', 'angle-based'],
    rows: shells.map(([name, shell]) => {
      const loops = borders(shell.triangles, shell.positions.length / 3).loops;
      const [a, b] = farthestPair(shell.positions, loops[0]);
      const pins = { vertices: [a, b], uv: [0, 0, distance(shell.positions, a, b), 0] };
      const maps = [
        unfoldShell(shell, 'conformal', unattended, { pins }),
        unfoldShell(shell, 'conformal', unattended),
        unfoldShell(shell, 'angle-based', unattended),
      ];
      const told = maps.map(({ uv, repaired }) => {
        const { angleMean, areaMean } = measureStretch(shell, uv);
        return `${angleMean.toFixed(2)}° / ${areaMean.toFixed(2)}${repaired ? ' (repaired)' : ''}`;
      });
      return [name, count(shell.triangles.length / 3), ...told];
    }),
  };
}
