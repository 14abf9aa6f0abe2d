import { execFileSync } from 'node:child_process';
import { existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import type { Pattern } from '@blunt-hem/core/linear/sparse';

/**
 * CGAL's Surface_mesh_parameterization and Eigen's SimplicialLLT, compiled once from peer.cpp with Debian's
 * libcgal-dev, as independent solvers of the same problems.
 */
const source = fileURLToPath(new URL('./peer.cpp', import.meta.url));
const program = fileURLToPath(new URL('../../node_modules/.cache/peer/peer', import.meta.url));

export const hasPeer = (): boolean => existsSync('/usr/include/CGAL/Surface_mesh_parameterization');

function build(): void {
  if (existsSync(program) && statSync(program).mtimeMs > statSync(source).mtimeMs) return;
  mkdirSync(dirname(program), { recursive: true });
  const flags = ['-O2', '-DNDEBUG', '-DCGAL_EIGEN3_ENABLED', '-I/usr/include/eigen3', '-lgmp', '-lmpfr'];
  execFileSync('g++', [source, '-o', program, ...flags], { stdio: ['ignore', 'ignore', 'inherit'] });
}

interface Triangles {
  readonly positions: Float64Array;
  readonly triangles: Uint32Array;
}

interface PeerMap {
  readonly uv: Float64Array;
  /** Of parameterising alone. */
  readonly seconds: number;
}

export type LscmSolver = 'ldlt' | 'lu' | 'bicgstab';
export type ArapSolver = 'lu' | 'bicgstab';

/** CGAL's least-squares conformal map with two pins, which it places itself; throws where it finds none. */
export const peerLscm = (shell: Triangles, pins: readonly [number, number], solver: LscmSolver): PeerMap =>
  flatten(shell, `lscm-${solver}`, pins);

/** CGAL's as-rigid-as-possible map; throws where it finds none. */
export const peerArap = (shell: Triangles, iterations: number, solver: ArapSolver): PeerMap =>
  flatten(shell, `arap-${solver}`, [iterations]);

function flatten({ positions, triangles }: Triangles, work: string, numbers: readonly number[]): PeerMap {
  return inFolder((folder) => {
    const mesh = join(folder, 'mesh');
    const out = join(folder, 'uv');
    const counts = Uint32Array.of(positions.length / 3, triangles.length / 3);
    write(mesh, counts, positions, triangles);
    const seconds = Number(run(work, mesh, ...numbers.map(String), out));
    const bytes = readFileSync(out);
    return {
      uv: new Float64Array(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.length)),
      seconds,
    };
  });
}

/** What the peer answers, or nothing where it fails. */
export function attempt<T>(ask: () => T): T | undefined {
  try {
    return ask();
  } catch {
    return undefined;
  }
}

/** Seconds Eigen takes to analyse and to factorise a matrix. */
export function peerCholesky(pattern: Pattern, values: Float64Array): { analyse: number; factorise: number } {
  return inFolder((folder) => {
    const file = join(folder, 'matrix');
    write(file, Uint32Array.of(pattern.size, values.length), pattern.columnStart, pattern.row, values);
    const [analyse, factorise] = run('llt', file).split(' ').map(Number);
    return { analyse, factorise };
  });
}

/** Seconds CGAL takes to read an OBJ file into a mesh, and to write it. */
export function peerObj(file: string): { read: number; write: number } {
  return inFolder((folder) => {
    const [read, written] = run('obj', file, join(folder, 'out.obj')).split(' ').map(Number);
    return { read, write: written };
  });
}

function inFolder<T>(work: (folder: string) => T): T {
  const folder = mkdtempSync(join(tmpdir(), 'hem-peer-'));
  try {
    return work(folder);
  } finally {
    rmSync(folder, { recursive: true });
  }
}

const write = (path: string, ...lists: readonly ArrayBufferView[]): void =>
  writeFileSync(path, Buffer.concat(lists.map((l) => Buffer.from(l.buffer, l.byteOffset, l.byteLength))));

function run(...args: string[]): string {
  build();
  return execFileSync(program, args, { encoding: 'utf8', maxBuffer: 1 << 20 });
}
