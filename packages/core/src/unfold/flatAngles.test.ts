import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { StoppedError } from '../errors.ts';
import { measureStretch } from '../measure/stretch.ts';
import { unattended } from '../progress.ts';
import { borders } from '../surface/borders.ts';
import { restTriangles } from '../surface/restTriangles.ts';
import type { Shell } from '../surface/shell.ts';
import { sheet, sphericalCap, wholeShell } from '../testing/shapes.ts';
import { cornerAngles } from './angleBased.ts';
import { flatAngles } from './flatAngles.ts';
import { unfoldShell } from './unfold.ts';

const hills = (height: number, seed = 0) =>
  wholeShell(
    sheet(24, 24, (i, j) => [
      j,
      height *
        (Math.exp(-((i - 8) ** 2 + (j - 9 - seed) ** 2) / 12) +
          Math.exp(-((i - 17) ** 2 + (j - 16) ** 2) / 9)),
      i,
    ]),
  );

function solved(shell: Shell) {
  const onBorder = new Uint8Array(shell.positions.length / 3);
  for (const loop of borders(shell.triangles, onBorder.length).loops) for (const v of loop) onBorder[v] = 1;
  const beta = cornerAngles(restTriangles(shell.positions, shell.triangles));
  return { ...flatAngles(shell, beta, onBorder, unattended), beta, onBorder };
}

describe('flat angles', () => {
  it('meet every constraint of the paper, on any surface', () => {
    const cases = fc.tuple(fc.double({ min: 0, max: 9, noNaN: true }), fc.integer({ min: -3, max: 3 }));
    fc.assert(
      fc.property(cases, ([height, seed]) => {
        const shell = hills(height, seed);
        const { angles, onBorder, residual } = solved(shell);
        expect(residual).toBeLessThan(1e-6);
        const sum = new Float64Array(onBorder.length);
        const wheel = new Float64Array(onBorder.length).fill(1);
        for (let t = 0; t < angles.length; t += 3) {
          expect(angles[t] + angles[t + 1] + angles[t + 2]).toBeCloseTo(Math.PI, 6);
          for (let p = 0; p < 3; p++) {
            expect(angles[t + p]).toBeGreaterThan(0);
            const v = shell.triangles[t + p];
            sum[v] += angles[t + p];
            // Sheffer et al. 2005, (4): Π sin α₊ = Π sin α₋ round every inner vertex.
            wheel[v] *= Math.sin(angles[t + ((p + 1) % 3)]) / Math.sin(angles[t + ((p + 2) % 3)]);
          }
        }
        for (let v = 0; v < sum.length; v++) {
          if (onBorder[v]) continue;
          expect(sum[v]).toBeCloseTo(2 * Math.PI, 6);
          expect(wheel[v]).toBeCloseTo(1, 6);
        }
      }),
      { numRuns: 15 },
    );
  });

  it('are those of the surface where it is flat already', () => {
    const { angles, beta } = solved(hills(0));
    angles.forEach((angle, i) => {
      expect(angle).toBeCloseTo(beta[i], 6);
    });
  });

  it('need no step where no vertex lies inside', () => {
    const strip = wholeShell(sheet(1, 6, (i, j) => [j, i, Math.sin(j)]));
    expect(solved(strip).steps).toBe(0);
  });
});

describe('angle-based unfolding', () => {
  it('lays out exactly what is flat', () => {
    const shell = wholeShell(sheet(9, 7, (i, j) => [Math.sin(0.3 * j), i, 1 - Math.cos(0.3 * j)]));
    const { uv } = unfoldShell(shell, 'angle-based', unattended);
    expect(measureStretch(shell, uv).l2).toBeCloseTo(1, 4);
  });

  it('stretches strongly curved shells less than the conformal map, at no worse angles', () => {
    for (const height of [6, 9]) {
      const shell = hills(height);
      const angle = measureStretch(shell, unfoldShell(shell, 'angle-based', unattended).uv);
      const conformal = measureStretch(shell, unfoldShell(shell, 'conformal', unattended).uv);
      expect(angle.areaMean).toBeLessThan(0.98 * conformal.areaMean);
      expect(angle.angleMean).toBeLessThan(1.05 * conformal.angleMean);
      expect(angle.flipped).toBe(0);
    }
  });

  it('stops when told', () => {
    let reports = 0;
    const signal = {
      get aborted() {
        return reports > 1;
      },
    };
    const cap = sphericalCap(12, 30, 2.5);
    expect(() => unfoldShell(cap, 'angle-based', { signal, report: () => reports++ })).toThrow(StoppedError);
  });
});
