import { overlapsWithin } from '@blunt-hem/core/measure/overlap';
import { unattended } from '@blunt-hem/core/progress';
import { relax } from '@blunt-hem/core/relax/relax';
import type { Shell } from '@blunt-hem/core/surface/shell';
import { sheet, wholeShell } from '@blunt-hem/core/testing/shapes';
import { unfoldShell } from '@blunt-hem/core/unfold/unfold';
import { count, ratio, seconds, type Table } from './table.ts';

/** More than a full turn round a hole, waved, and cut open. */
const ruffle = (rings: number, sectors: number): Shell =>
  wholeShell(
    sheet(rings, sectors, (i, j) => {
      const [r, a] = [0.05 + (0.95 * i) / rings, (1.9999 * Math.PI * j) / sectors];
      return [r * Math.cos(a), r * Math.sin(a), 0.4 * r * Math.sin(3 * a)];
    }),
  );

/** A flat ring that goes on for some turns, rising. */
const ramp = (rings: number, sectors: number, turns: number): Shell =>
  wholeShell(
    sheet(rings, sectors, (i, j) => {
      const [r, a] = [1 + i / rings, (2 * Math.PI * turns * j) / sectors];
      return [r * Math.cos(a), r * Math.sin(a), 0.1 * a];
    }),
  );

/** Relaxing what lies on itself, as it would lie and kept from it. */
export function clear(large: boolean): Table {
  const cases: (readonly [string, Shell])[] = [
    ['ruffle', ruffle(16, 64)],
    ['ruffle', ruffle(45, 220)],
    ['ramp of three turns', ramp(18, 560, 3)],
    ...(large ? ([['ruffle', ruffle(100, 500)]] as const) : []),
  ];
  return {
    title: 'Relaxed clear of itself',
    columns: [
      'shell',
      'triangles',
      'as it would lie, s',
      'clear of itself, s',
      'ratio',
      'pairs on each other',
      'energy: as it would lie, clear',
    ],
    rows: cases.map(([name, shell]) => {
      const { uv } = unfoldShell(shell, 'conformal', unattended);
      const timed = (keptClear: boolean) => {
        const start = performance.now();
        const found = relax(shell, uv, { clear: keptClear ? 'anew' : undefined }, unattended);
        return { ...found, took: (performance.now() - start) / 1000 };
      };
      const [plain, other] = [timed(false), timed(true)];
      const pairs = [plain, other].map((found) => overlapsWithin(shell.triangles, found.uv, 1e5).length / 2);
      return [
        name,
        count(shell.triangles.length / 3),
        seconds(plain.took),
        seconds(other.took),
        ratio(other.took, plain.took),
        pairs.map(count).join(' → '),
        [plain, other].map(({ energyAfter }) => energyAfter.toFixed(3)).join(', '),
      ];
    }),
  };
}
