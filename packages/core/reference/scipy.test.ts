import { execFileSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { describe, expect, it } from 'vitest';
import { analyse, factorise, solve } from '../src/linear/cholesky.ts';
import { gatherPattern } from '../src/linear/sparse.ts';
import { unattended } from '../src/progress.ts';
import { energy } from '../src/relax/distortion.ts';
import { relax } from '../src/relax/relax.ts';
import { restTriangles } from '../src/surface/restTriangles.ts';
import { horn, sheet, sphericalCap, wholeShell } from '../src/testing/shapes.ts';
import { lscm } from '../src/unfold/lscm.ts';
import { METHODS, unfoldShell } from '../src/unfold/unfold.ts';

/** Against SciPy (Virtanen et al. 2020) and NumPy, of Debian's python3-scipy: see independent.py for what is asked of them. */
const script = fileURLToPath(new URL('./independent.py', import.meta.url));
const python = '/usr/bin/python3';
const hasSciPy = existsSync('/usr/lib/python3/dist-packages/scipy');

function ask<T>(work: string, task: object): T {
  const plain = (_: string, value: unknown) =>
    ArrayBuffer.isView(value) ? Array.from(value as Float64Array) : value;
  const input = JSON.stringify({ work, ...task }, plain);
  return JSON.parse(execFileSync(python, [script], { input, encoding: 'utf8', maxBuffer: 1 << 26 }));
}

const shells = [
  ['cap', sphericalCap(4, 9, 1.9)],
  ['saddle', wholeShell(sheet(5, 6, (i, j) => [j, i, 0.25 * (j - 3) * (i - 2.5)]))],
  ['hill', wholeShell(sheet(6, 6, (i, j) => [j, i, 4 * Math.exp(-((i - 3) ** 2 + (j - 3) ** 2) / 4)]))],
] as const;

/** The horn with its rings as circles at radii of arc length from the tip: the analytic start, which no solver of ours has a hand in. */
function unrolled(rings: number, sectors: number, length: number): Float64Array {
  const slant = Math.hypot(length / rings, 0.97 / rings);
  const uv = new Float64Array(2 * (rings * sectors + 1));
  for (let i = 0; i < rings; i++) {
    const radius = slant * (rings - 1 - i) + Math.hypot(length / rings, 1 - (0.97 * (rings - 1)) / rings);
    for (let j = 0; j < sectors; j++) {
      const angle = (2 * Math.PI * j) / sectors;
      uv.set([radius * Math.cos(angle), radius * Math.sin(angle)], 2 * (i * sectors + j));
    }
  }
  return uv;
}

describe.skipIf(!hasSciPy)('against SciPy', () => {
  it('solves sparse systems alike', () => {
    for (const size of [1, 40, 400]) {
      const rows = Uint32Array.from({ length: 3 * size }, (_, i) => (i * 7 + 3) % size);
      const columns = Uint32Array.from({ length: 3 * size }, (_, i) => (i * 13 + (i >> 3)) % size);
      const { pattern, slot } = gatherPattern(size, rows, columns);
      const values = new Float64Array(pattern.row.length);
      for (let j = 0; j < size; j++) values[pattern.columnStart[j]] = 0.5;
      slot.forEach((place, i) => {
        if (rows[i] === columns[i]) return;
        const weight = 1 + (i % 5);
        values[place] -= weight;
        values[pattern.columnStart[rows[i]]] += weight;
        values[pattern.columnStart[columns[i]]] += weight;
      });
      const b = Float64Array.from({ length: size }, (_, i) => Math.sin(3 * i));
      const { columnStart, row } = pattern;
      const { x } = ask<{ x: number[] }>('solve', { size, columnStart, row, values, b });
      solve(factorise(analyse(pattern), values), b).forEach((value, i) => {
        expect(value).toBeCloseTo(x[i], 9);
      });
    }
  });

  it.each(shells)('%s: the least-squares conformal map is that of the paper', (_, shell) => {
    const { positions, triangles } = shell;
    const pins = { vertices: [0, positions.length / 3 - 1], uv: [0, 0, 3, 1] };
    const ours = lscm(shell, restTriangles(positions, triangles), pins);
    const task = { positions, triangles, pins: pins.vertices, uv: pins.uv };
    const { uv } = ask<{ uv: number[] }>('lscm', task);
    ours.forEach((x, i) => {
      expect(x).toBeCloseTo(uv[i], 8);
    });
  });

  it.each(shells)('%s: relaxing finds the optimum that BFGS finds', (_, shell) => {
    const { positions, triangles } = shell;
    const start = unfoldShell(shell, 'conformal', unattended).uv;
    const theirs = ask<{ energy: number; gradient: number }>('relax', { positions, triangles, start });
    expect(theirs.gradient).toBeLessThan(1e-5);
    const ours = relax(shell, start, { tolerance: 1e-12 }, unattended);
    expect(ours.energyAfter / theirs.energy).toBeCloseTo(1, 7);
    // At the default tolerance it is within a hundredth of a percent.
    expect(relax(shell, start, {}, unattended).energyAfter / theirs.energy).toBeLessThan(1.0001);
    expect(energy(triangles, restTriangles(positions, triangles), start)).toBeGreaterThan(theirs.energy);
  });

  it.each([
    [12, 8, 6],
    [20, 9, 12],
  ])(
    'a horn of %i rings × %i, %i long, relaxes to the optimum BFGS finds from circles',
    (rings, sectors, length) => {
      const shell = horn(rings, sectors, length);
      const { positions, triangles } = shell;
      const start = unrolled(rings, sectors, length);
      const theirs = ask<{ energy: number }>('relax', { positions, triangles, start });
      for (const method of METHODS) {
        const { uv } = unfoldShell(shell, method, unattended);
        expect(relax(shell, uv, {}, unattended).energyAfter / theirs.energy).toBeLessThan(1.03);
      }
    },
  );
});
