import { describe, expect, it } from 'vitest';
import { LOWER_ENTRIES, multiplyTriangles } from '../linear/triangleSystem.ts';
import { measureStretch } from '../measure/stretch.ts';
import { unattended } from '../progress.ts';
import { restTriangles } from '../surface/restTriangles.ts';
import { horn, sphericalCap } from '../testing/shapes.ts';
import { unfoldShell } from '../unfold/unfold.ts';
import { energy, quadratic } from './distortion.ts';
import { stepToCollapse } from './flipBarrier.ts';
import { FlippedStartError } from './loosen.ts';
import { relax } from './relax.ts';
import { tutteEmbedding } from './tutte.ts';

const cap = sphericalCap(8, 20, 2);
const rest = restTriangles(cap.positions, cap.triangles);
const start = tutteEmbedding(cap, rest.totalArea);

describe('symmetric Dirichlet energy', () => {
  it('has the gradient that differences give', () => {
    const { gradient } = quadratic(cap.triangles, rest, start);
    const h = 1e-6;
    for (const i of [0, 1, 7, 40, 81, 200]) {
      const [up, down] = [start.slice(), start.slice()];
      up[i] += h;
      down[i] -= h;
      const slope = (energy(cap.triangles, rest, up) - energy(cap.triangles, rest, down)) / (2 * h);
      expect(gradient[i]).toBeCloseTo(slope, 6);
    }
  });

  it('has the Hessian that differences give where it is convex, and never a negative direction', () => {
    // One triangle stretched both ways: every eigenvalue is positive, so nothing is projected away.
    const triangles = Uint32Array.from([0, 1, 2]);
    const one = restTriangles(Float64Array.from([0, 0, 0, 1, 0, 0, 0.2, 0.9, 0]), triangles);
    const uv = Float64Array.from([0, 0, 1.7, 0.3, -0.2, 1.9]);
    const { hessian } = quadratic(triangles, one, uv);
    expect(hessian.length).toBe(LOWER_ENTRIES);
    const h = 1e-6;
    for (let i = 0; i < 6; i++) {
      const unit = new Float64Array(6);
      unit[i] = 1;
      const [up, down] = [uv.slice(), uv.slice()];
      up[i] += h;
      down[i] -= h;
      const column = multiplyTriangles(triangles, hessian, unit);
      const ahead = quadratic(triangles, one, up).gradient;
      const behind = quadratic(triangles, one, down).gradient;
      for (let j = 0; j < 6; j++) expect(column[j]).toBeCloseTo((ahead[j] - behind[j]) / (2 * h), 4);
    }
  });

  it('is infinite for a flipped triangle', () => {
    const mirrored = start.map((x, i) => (i % 2 ? x : -x));
    expect(energy(cap.triangles, rest, mirrored)).toBe(Infinity);
  });
});

describe('every step', () => {
  it.each([
    ['a cap', cap, start],
    ['a horn', horn(10, 12, 5), undefined],
    ['a long horn', horn(14, 16, 9), undefined],
  ] as const)('of relaxing %s from a bare embedding lowers the energy', (_, shell, from) => {
    const { totalArea } = restTriangles(shell.positions, shell.triangles);
    const energies: number[] = [];
    const context = {
      ...unattended,
      report: ({ figure }: { figure?: number }) => {
        if (figure !== undefined) energies.push(figure);
      },
    };
    const { energyAfter } = relax(shell, from ?? tutteEmbedding(shell, totalArea), { steps: 60 }, context);
    expect(energies.length).toBeGreaterThan(3);
    for (let i = 1; i < energies.length; i++) expect(energies[i]).toBeLessThan(energies[i - 1]);
    expect(energyAfter).toBeLessThanOrEqual(energies[energies.length - 1]);
  });
});

describe('flip barrier', () => {
  it('finds the step at which a corner crosses the side opposite', () => {
    const uv = Float64Array.from([0, 0, 1, 0, 0.3, 2]);
    const down = Float64Array.from([0, 0, 0, 0, 0, -4]);
    expect(stepToCollapse(Uint32Array.from([0, 1, 2]), uv, down)).toBeCloseTo(0.5, 12);
    expect(
      stepToCollapse(
        Uint32Array.from([0, 1, 2]),
        uv,
        down.map((x) => -x),
      ),
    ).toBe(Infinity);
  });
});

describe('relax', () => {
  it('falls at every step, never flips, and finds one optimum from two starts', () => {
    const figures: number[] = [];
    const watch = {
      signal: { aborted: false },
      report: ({ figure, uv }: { figure?: number; uv?: Float64Array }) => {
        figures.push(figure as number);
        expect(measureStretch(cap, uv as Float64Array).flipped).toBe(0);
      },
    };
    const fromTutte = relax(cap, start, {}, watch);
    const fromConformal = relax(cap, unfoldShell(cap, 'conformal', unattended).uv, {}, unattended);
    expect(figures.every((figure, i) => i === 0 || figure <= figures[i - 1])).toBe(true);
    expect(fromTutte.converged).toBe(true);
    expect(fromTutte.energyAfter).toBeCloseTo(fromConformal.energyAfter, 4);
    expect(measureStretch(cap, fromTutte.uv).flipped).toBe(0);
  });

  it('keeps what is fixed, and the scale of what came in', () => {
    const fixed = new Uint8Array(start.length / 2);
    fixed.fill(1, 100);
    const { uv } = relax(
      cap,
      start.map((x) => 0.01 * x),
      { fixed },
      unattended,
    );
    for (let i = 200; i < uv.length; i++) expect(uv[i]).toBeCloseTo(0.01 * start[i], 12);
    const small = relax(
      cap,
      start.map((x) => 0.01 * x),
      {},
      unattended,
    );
    expect(measureStretch(cap, small.uv).uvArea).toBeCloseTo(1e-4 * measureStretch(cap, start).uvArea, 10);
  });

  it('stops with the best so far', () => {
    let steps = 0;
    const signal = {
      get aborted() {
        return steps >= 2;
      },
    };
    const { energyAfter, energyBefore, converged, uv } = relax(
      cap,
      start,
      {},
      { signal, report: () => steps++ },
    );
    expect(converged).toBe(false);
    expect(energyAfter).toBeLessThan(energyBefore);
    expect(measureStretch(cap, uv).flipped).toBe(0);
  });

  it('refuses a flipped start', () => {
    expect(() =>
      relax(
        cap,
        start.map((x, i) => (i % 2 ? x : -x)),
        {},
        unattended,
      ),
    ).toThrow(FlippedStartError);
  });
});
