import { execFileSync } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { measureStretch } from '@blunt-hem/core/measure/stretch';
import { unattended } from '@blunt-hem/core/progress';
import { borders } from '@blunt-hem/core/surface/borders';
import { restTriangles } from '@blunt-hem/core/surface/restTriangles';
import type { Shell } from '@blunt-hem/core/surface/shell';
import { farthestPair } from '@blunt-hem/core/unfold/farthestPair';
import { pinnedConformal } from '@blunt-hem/core/unfold/lscm';
import { unfoldShell } from '@blunt-hem/core/unfold/unfold';
import { attempt, hasPeer, type LscmSolver, peerLscm } from './peer/peer.ts';
import { cap } from './shapes.ts';
import { count, growth, ratio, seconds, type Table, time } from './table.ts';

const SOLVERS: LscmSolver[] = ['ldlt', 'lu', 'bicgstab'];

/** The best of CGAL's solver options, parameterising alone; the slow ones only where they end soon. */
export function bestOfCgal(shell: Shell): { seconds: number; solver: string } | undefined {
  if (!hasPeer()) return undefined;
  const pair = farthestPair(shell.positions, borders(shell.triangles, shell.positions.length / 3).loops[0]);
  const solvers = shell.triangles.length / 3 > 50_000 ? SOLVERS.slice(0, 1) : SOLVERS;
  return solvers
    .flatMap((solver) => {
      const map = attempt(() => peerLscm(shell, pair, solver));
      return map ? { solver, seconds: map.seconds } : [];
    })
    .sort((a, b) => a.seconds - b.seconds)[0];
}

/** From positions to checked UVs, against CGAL's LSCM from a mesh to UVs, unchecked. */
export function conformal(large: boolean): Table {
  unfoldShell(cap(20_000), 'conformal', unattended); // compile
  unfoldShell(cap(20_000), 'conformal', unattended);
  let first: { size: number; seconds: number } | undefined;
  const rows = [2_000, 20_000, 100_000, ...(large ? [500_000] : [])].map((wanted) => {
    const shell = cap(wanted);
    const size = shell.triangles.length / 3;
    let uv: Float64Array = new Float64Array();
    const ours = time(size > 50_000 ? 3 : 5, () => {
      uv = unfoldShell(shell, 'conformal', unattended).uv;
    });
    const theirs = bestOfCgal(shell);
    const { flipped, collapsed } = measureStretch(shell, uv);
    const power = first && growth(first, { size, seconds: ours });
    if (wanted >= 20_000) first ??= { size, seconds: ours };
    return [
      count(size),
      seconds(ours),
      theirs ? `${seconds(theirs.seconds)} (${theirs.solver})` : '–',
      theirs ? ratio(ours, theirs.seconds) : '–',
      power?.toFixed(2) ?? '–',
      `${flipped + collapsed}`,
    ];
  });
  if (large) rows.push(million());
  return {
    title: 'Conformal, cold start to UVs',
    columns: [
      'triangles',
      'ours, s',
      'CGAL LSCM, s (its best solver)',
      'ratio',
      'exponent since 20 k',
      'flips',
    ],
    rows,
  };
}

/** In a process of its own, for its memory. */
function million(): string[] {
  const script = fileURLToPath(new URL('./million.ts', import.meta.url));
  const out = execFileSync(process.execPath, ['--import', 'tsx', script], { encoding: 'utf8' });
  const told = JSON.parse(out);
  return [
    count(told.triangles),
    seconds(told.seconds),
    '–',
    `${told.gigabytes.toFixed(2)} GB in all`,
    '–',
    `${told.flips}`,
  ];
}

/** A drag of one pin: the factor is kept, and only the last solve is done again. */
export function movedPins(): Table {
  const shell = cap(10_000);
  const pair = farthestPair(shell.positions, borders(shell.triangles, shell.positions.length / 3).loops[0]);
  const map = pinnedConformal(shell, restTriangles(shell.positions, shell.triangles), pair);
  const first = time(1, () => unfoldShell(shell, 'conformal', unattended));
  for (let i = 0; i < 50; i++) map.solve([0, 0, 1, i / 50]);
  let turn = 0;
  const again = time(101, () => map.solve([0, 0, Math.cos(turn), Math.sin(turn++)]));
  map.release();
  return {
    title: 'Pins moved, factor kept',
    columns: ['triangles', 'a solve, median of 101, ms', 'part of a first unfold'],
    rows: [[count(shell.triangles.length / 3), (1000 * again).toFixed(1), ratio(again, first)]],
  };
}
