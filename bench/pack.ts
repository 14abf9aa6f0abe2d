import { distanceField } from '@blunt-hem/core/pack/distanceField';
import { outlineOf, segmentsOf } from '@blunt-hem/core/pack/outline';
import { packBetter } from '@blunt-hem/core/pack/packBetter';
import { packFirst } from '@blunt-hem/core/pack/packFirst';
import type { PackOptions, PackShell } from '@blunt-hem/core/pack/packShell';
import { shapeOf } from '@blunt-hem/core/pack/shape';
import { unattended, within } from '@blunt-hem/core/progress';
import { FIRST_TILE, gapOf } from '@blunt-hem/core/surface/tiles';
import { type ClassShell, packClasses, thousands } from './packClasses.ts';
import type { Table } from './table.ts';

const options: PackOptions = { frame: [0, 0, 1, 1], gap: gapOf(FIRST_TILE), texel: 1 / FIRST_TILE.height };
const QUARTERS = [0, Math.PI / 2, Math.PI, 1.5 * Math.PI];

/** Use of a tile by classes of shells at 2048 px with 8 px between: the first layout, and what some seconds on one core make of it. */
export function pack(large: boolean): Table {
  const times = large ? [0.3, 1, 10, 60] : [0.3, 1, 10];
  const classes = Object.entries({ ...packClasses, ...(large ? { thousands } : {}) });
  const rows = classes.map(([name, make]) => {
    const shells = make();
    const area = shells.reduce((sum, shell) => sum + shapeOf(shell).area, 0);
    const quarter = runTo(shells, QUARTERS, times);
    const free = runTo(shells, 'free', [times[times.length - 1]]);
    return {
      words: [name, String(shells.length), `${Math.round(1000 * quarter.firstSeconds)} ms`],
      parts: [quarter.first, ...quarter.scales, ...free.scales, boundOf(shells)].map((s) => area * s * s),
    };
  });
  const means = rows[0].parts.map((_, k) =>
    Math.exp(rows.reduce((sum, { parts }) => sum + Math.log(parts[k]), 0) / rows.length),
  );
  return {
    title: 'Use of a tile of 2048 px, 8 px between shells',
    columns: [
      'shells',
      'count',
      'first layout after',
      'it uses',
      ...times.map((t) => `after ${t} s more`),
      `turned freely, ${times[times.length - 1]} s`,
      'bound',
    ],
    rows: [
      ...rows.map(({ words, parts }) => [...words, ...parts.map(percent)]),
      ['geometric mean', '', '', ...means.map(percent)],
    ],
  };
}

const percent = (part: number): string => `${(100 * part).toFixed(1)} %`;

function runTo(classShells: readonly ClassShell[], turning: PackShell['turning'], times: readonly number[]) {
  const shells = classShells.map((shell): PackShell => ({ ...shell, turning }));
  const start = performance.now();
  const first = packFirst(shells, options, unattended);
  if (!first) throw new Error('The shells do not fit.');
  const firstSeconds = (performance.now() - start) / 1000;
  const found: { at: number; scale: number }[] = [{ at: 0, scale: first[0].scale }];
  const begun = performance.now();
  const signal = within({ aborted: false }, Math.max(...times));
  const report = ({ places }: { readonly places?: Float64Array }) => {
    if (places) found.push({ at: (performance.now() - begun) / 1000, scale: places[3] });
  };
  packBetter(shells, first, { ...options, seed: 1, rounds: Number.POSITIVE_INFINITY }, { signal, report });
  return {
    first: first[0].scale,
    firstSeconds,
    scales: times.map((t) => Math.max(...found.filter(({ at }) => at <= t).map(({ scale }) => scale))),
  };
}

/** The scale at which outlines grown by half the gap cover all of the tile but half a gap at its edge: no layout has more. */
function boundOf(shells: readonly ClassShell[]): number {
  const room = (1 - options.gap) ** 2;
  let [low, high] = [0, 1];
  for (let k = 0; k < 10; k++) {
    const scale = (low + high) / 2;
    const grown = shells.reduce(
      (sum, shell) => sum + grownArea(shell, options.gap / 2 / scale) * scale * scale,
      0,
    );
    if (grown > room) high = scale;
    else low = scale;
  }
  return high;
}

/** Area of what lies in a shell or nearer to it than some distance, by counting nodes of a grid. */
function grownArea(shell: ClassShell, by: number): number {
  const { halfWidth, halfHeight } = shapeOf(shell);
  const cell = Math.max(halfWidth, halfHeight) / 24;
  const { distance } = distanceField(shell, segmentsOf(outlineOf(shell)), cell, by + cell);
  return distance.reduce((count, d) => count + (d <= by ? 1 : 0), 0) * cell * cell;
}
