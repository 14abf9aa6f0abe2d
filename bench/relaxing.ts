import { type Context, unattended } from '@blunt-hem/core/progress';
import { energy, quadratic } from '@blunt-hem/core/relax/distortion';
import { relax } from '@blunt-hem/core/relax/relax';
import { triangleArea } from '@blunt-hem/core/surface/flatArea';
import { restTriangles } from '@blunt-hem/core/surface/restTriangles';
import type { Shell } from '@blunt-hem/core/surface/shell';
import { unfoldShell } from '@blunt-hem/core/unfold/unfold';
import { attempt, hasPeer, peerArap } from './peer/peer.ts';
import { cap, hills } from './shapes.ts';
import { count, ratio, seconds, type Table } from './table.ts';

/** From the conformal map to within 1 % of the converged energy, against 50 iterations of CGAL's ARAP from nothing. */
export function relaxing(large: boolean): Table {
  const cases: [string, Shell, boolean][] = [
    ['cap', cap(20_000), true],
    ['hills', hills(100), true],
    ['cap', cap(100_000), large],
    ...(large ? ([['cap', cap(500_000), false]] as [string, Shell, boolean][]) : []),
  ];
  return {
    title: 'Relax, from conformal to within 1 % of the converged energy',
    columns: [
      'shell',
      'triangles',
      'ours, s',
      'steps',
      'CGAL ARAP, 50 iterations, s (its best solver)',
      'ratio',
      'energy: start → 1 % → converged',
      'gradient left',
      'CGAL’s energy',
      'flips: ours, CGAL’s',
    ],
    rows: cases.map(([name, shell, compare]) => row(name, shell, compare && hasPeer())),
  };
}

function row(name: string, shell: Shell, compare: boolean): string[] {
  const { triangles } = shell;
  const rest = restTriangles(shell.positions, triangles);
  const start = unfoldShell(shell, 'conformal', unattended).uv;
  const norm = (uv: Float64Array) =>
    Math.sqrt(quadratic(triangles, rest, uv).gradient.reduce((sum, x) => sum + x * x, 0));
  // At a scale of 1 the map comes back as the minimiser left it.
  const converged = relax(shell, start, { scale: 1, tolerance: 1e-15 }, unattended);
  const left = norm(converged.uv) / norm(start);

  const goal = 1.01 * converged.energyAfter;
  const begun = performance.now();
  let [spent, steps, reached] = [0, 0, Infinity];
  const signal = { aborted: false };
  const report: Context['report'] = ({ figure = Infinity }) => {
    spent = (performance.now() - begun) / 1000;
    reached = figure;
    if (figure <= goal) signal.aborted = true;
    else steps++;
  };
  const ours = relax(shell, start, { scale: 1 }, { signal, report });

  const peer = compare ? bestArap(shell) : undefined;
  const theirs = peer && facing(triangles, peer.uv);
  const theirEnergy = theirs && energy(triangles, rest, theirs);
  return [
    name,
    count(triangles.length / 3),
    seconds(spent),
    `${steps}`,
    peer ? `${seconds(peer.seconds)} (${peer.solver})` : compare ? 'finds none' : '–',
    peer ? ratio(spent, peer.seconds) : '–',
    `${converged.energyBefore.toFixed(4)} → ${reached.toFixed(4)} → ${converged.energyAfter.toFixed(4)}`,
    left.toExponential(0),
    theirEnergy?.toFixed(4) ?? '–',
    `${flips(triangles, ours.uv)}, ${theirs ? flips(triangles, theirs) : '–'}`,
  ];
}

function bestArap(shell: Shell) {
  const maps = (['lu', 'bicgstab'] as const).flatMap((solver) => {
    const map = attempt(() => peerArap(shell, 50, solver));
    return map ? { ...map, solver } : [];
  });
  return maps.sort((a, b) => a.seconds - b.seconds)[0] as (typeof maps)[0] | undefined;
}

/** The peer may lay a shell face down. */
function facing(triangles: Uint32Array, uv: Float64Array): Float64Array {
  const mirrored = uv.map((x, i) => (i & 1 ? -x : x));
  return flips(triangles, uv) <= flips(triangles, mirrored) ? uv : mirrored;
}

function flips(triangles: Uint32Array, uv: Float64Array): number {
  let sum = 0;
  for (let t = 0; t < triangles.length / 3; t++) if (!(triangleArea(triangles, uv, t) > 0)) sum++;
  return sum;
}
