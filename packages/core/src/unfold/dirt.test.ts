import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { measureStretch } from '../measure/stretch.ts';
import { unattended } from '../progress.ts';
import { relax } from '../relax/relax.ts';
import { triangleArea } from '../surface/flatArea.ts';
import { type Shell, shellFromTriangles } from '../surface/shell.ts';
import { sheet, sphericalCap, wholeShell } from '../testing/shapes.ts';
import { METHODS, unfoldShell } from './unfold.ts';

/** Unfolds with every method and relaxes: numbers only, and no triangle flipped or collapsed. */
function survive(shell: Shell): Float64Array[] {
  return METHODS.map((method) => {
    const { uv } = unfoldShell(shell, method, unattended);
    const relaxed = relax(shell, uv, { steps: 30 }, unattended);
    for (const map of [uv, relaxed.uv]) {
      expect(map.every(Number.isFinite)).toBe(true);
      for (let t = 0; t < shell.triangles.length / 3; t++) {
        expect(triangleArea(shell.triangles, map, t)).toBeGreaterThan(0);
      }
    }
    expect(relaxed.energyAfter).toBeLessThanOrEqual(relaxed.energyBefore);
    return relaxed.uv;
  });
}

const moved = (shell: Shell, scale: number, shift: number): Shell => ({
  ...shell,
  positions: shell.positions.map((x) => scale * x + shift),
});

/** A sheet bent in one direction, so that it lies flat without stretch whatever its points do along it. */
const bent = (rows: number, x: (i: number, j: number) => number, y: (i: number) => number = (i) => i) =>
  wholeShell(sheet(rows, 10, (i, j) => [x(i, j), y(i), 0.4 * Math.sin(y(i))]));

describe('dirty shells', () => {
  it('unfold alike from 1e-8 to 1e8 units, and far from the origin', () => {
    const cap = sphericalCap(6, 18, 2);
    const plain = survive(cap).map((uv) => measureStretch(cap, uv).l2);
    for (const scale of [1e-8, 1e-3, 1e8]) {
      const sized = moved(cap, scale, 0);
      survive(sized).forEach((uv, m) => {
        expect(measureStretch(sized, uv).l2).toBeCloseTo(plain[m], 5);
      });
    }
    survive(moved(cap, 1e-3, 1e4));
  });

  it('may be as small as one triangle', () => {
    survive(shellFromTriangles([0, 0, 0, 1, 0, 0, 1, 1, 0.5], [0, 1, 2]));
    survive(shellFromTriangles([0, 0, 0, 1, 0, 0, 1, 1, 0.5, 0, 1, 0], [0, 1, 2, 0, 2, 3]));
  });

  it('may have slivers of next to no area', () => {
    for (const thin of [1e-3, 1e-6, 1e-12, 0]) {
      const shell = bent(10, (_, j) => (j % 3 === 1 ? j - 1 + thin : j));
      survive(shell).forEach((uv) => {
        expect(measureStretch(shell, uv).l2).toBeCloseTo(1, 3);
      });
    }
  });

  it('may have whole rows of points in one place: what has a size still lies flat', () => {
    const doubled = [
      bent(10, (_, j) => Math.min(j, 7)),
      bent(
        10,
        (_, j) => Math.min(j, 7),
        (i) => Math.min(i, 8),
      ),
      bent(
        10,
        (_, j) => (j > 3 && j < 7 ? 4 : j),
        (i) => (i > 3 && i < 7 ? 5 : i),
      ),
    ];
    for (const shell of doubled) {
      survive(shell).forEach((uv) => {
        expect(measureStretch(shell, uv).l2).toBeCloseTo(1, 3);
      });
    }
  });

  it('may be no surface at all', () => {
    survive(wholeShell(sheet(6, 6, () => [1, 2, 3])));
    survive(wholeShell(sheet(6, 6, (_, j) => [j, 0, 0])));
  });

  it('may be crumpled at random', () => {
    const coordinate = fc.double({ min: -1, max: 1, noNaN: true });
    fc.assert(
      fc.property(fc.array(coordinate, { minLength: 75, maxLength: 75 }), (xyz) => {
        survive(wholeShell(sheet(4, 4, (i, j) => [0, 1, 2].map((k) => xyz[3 * (5 * i + j) + k]))));
      }),
      { numRuns: 40 },
    );
  });

  it('may be a ball with a pinhole', () => {
    survive(sphericalCap(16, 24, 3.1));
  });
});
