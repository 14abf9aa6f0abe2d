import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { writeObj } from '@blunt-hem/core/formats/writeObj';
import { modelFromMesh } from '@blunt-hem/core/mesh/model';
import type { Shell } from '@blunt-hem/core/surface/shell';
import { METHODS } from '@blunt-hem/core/unfold/unfold';
import { bestOfCgal } from './conformal.ts';
import { hasPeer, peerObj } from './peer/peer.ts';
import { cap } from './shapes.ts';
import { count, ratio, seconds, type Table } from './table.ts';

const RUNS = 3;
const script = fileURLToPath(new URL('../scripts/hem.mjs', import.meta.url));

/** `hem unfold` in a process of its own each time, as an artist calls it, against CGAL parameterising, reading and writing alone. */
export function command(large: boolean): Table {
  const folder = mkdtempSync(join(tmpdir(), 'hem-bench-'));
  try {
    const rows = [20_000, 100_000, ...(large ? [500_000] : [])].map((wanted) => row(folder, cap(wanted)));
    return {
      title: 'The command, from a fresh process',
      columns: [
        'triangles',
        'conformal: cut, unfold, layout, s',
        'CGAL LSCM, s',
        'ratio',
        'angle-based / conformal',
        'reading OBJ, s',
        'against CGAL',
        'writing OBJ, s',
        'against CGAL',
      ],
      rows,
    };
  } finally {
    rmSync(folder, { recursive: true });
  }
}

function row(folder: string, shell: Shell): string[] {
  const input = join(folder, 'in.obj');
  const seams = join(folder, 'seams.json');
  const { positions, triangles } = shell;
  const faceStart = Uint32Array.from({ length: triangles.length / 3 + 1 }, (_, f) => 3 * f);
  const model = modelFromMesh('in', {
    positions: positions.map((x) => Math.round(1e6 * x) / 1e6),
    faceStart,
    cornerVertex: triangles,
  });
  writeFileSync(input, writeObj(model, new Float64Array(2 * triangles.length).fill(NaN)));
  writeFileSync(seams, '{"edges":[]}');
  const [conformal, angleBased] = METHODS.map((method) => {
    const told = Array.from({ length: RUNS }, () => called(input, seams, join(folder, 'out.obj'), method));
    return (phase: string): number => told.map((t) => t[phase]).sort((a, b) => a - b)[RUNS >> 1];
  });
  const theirs = bestOfCgal(shell);
  const peers = hasPeer() ? Array.from({ length: RUNS }, () => peerObj(input)) : [];
  const middle = (phase: 'read' | 'write'): number | undefined =>
    peers.map((p) => p[phase]).sort((a, b) => a - b)[RUNS >> 1];
  const [read, write] = [middle('read'), middle('write')];
  return [
    count(triangles.length / 3),
    seconds(conformal('solve')),
    theirs ? seconds(theirs.seconds) : '–',
    theirs ? ratio(conformal('solve'), theirs.seconds) : '–',
    ratio(angleBased('solve'), conformal('solve')),
    seconds(conformal('read')),
    read ? ratio(conformal('read'), read) : '–',
    seconds(conformal('write')),
    write ? ratio(conformal('write'), write) : '–',
  ];
}

function called(input: string, seams: string, out: string, method: string): Record<string, number> {
  const args = [script, 'unfold', input, '--seams', seams, '--out', out, '--method', method];
  return JSON.parse(execFileSync(process.execPath, args, { encoding: 'utf8', maxBuffer: 1 << 26 })).seconds;
}
