import { describe, expect, it } from 'vitest';
import type { Shell } from '../surface/shell.ts';
import { sheet, wholeShell } from '../testing/shapes.ts';
import { indicatrices, SEGMENTS } from './indicatrix.ts';

const flat = (): Shell => wholeShell(sheet(24, 24, (i, j) => [j, i, 0]));

/** UVs by a linear map of a sheet that lies in a plane. */
const mapped = ({ positions }: Shell, [a, b, c, d]: readonly number[]): Float64Array =>
  Float64Array.from({ length: (2 * positions.length) / 3 }, (_, i) => {
    const [x, y] = positions.subarray(3 * (i >> 1), 3 * (i >> 1) + 2);
    return i % 2 === 0 ? a * x + b * y : c * x + d * y;
  });

/** Half axes of an ellipse whose points were taken at equal steps, from their second moments, and where the longer one points. */
function axes(lines: Float32Array, which: number, width: 2 | 3) {
  const ends = Array.from({ length: SEGMENTS }, (_, s) => {
    const at = 2 * width * (which * SEGMENTS + s);
    return [lines[at], lines[at + 1]];
  });
  const middle = [0, 1].map((k) => ends.reduce((sum, end) => sum + end[k], 0) / SEGMENTS);
  const moment = (i: number, j: number) =>
    (2 / SEGMENTS) * ends.reduce((sum, end) => sum + (end[i] - middle[i]) * (end[j] - middle[j]), 0);
  const [xx, xy, yy] = [moment(0, 0), moment(0, 1), moment(1, 1)];
  const spread = Math.hypot(xx - yy, 2 * xy);
  const turn = 0.5 * Math.atan2(2 * xy, xx - yy);
  return {
    most: Math.sqrt((xx + yy + spread) / 2),
    least: Math.sqrt(Math.max((xx + yy - spread) / 2, 0)),
    middle,
    along: [Math.cos(turn), Math.sin(turn)],
  };
}

describe('ellipses of Tissot', () => {
  it('are circles where nothing stretches, on both sides, and as large as one another', () => {
    const shell = flat();
    const { board, model, count } = indicatrices([{ shell, uv: mapped(shell, [0.02, 0, 0, 0.02]) }], 100);
    expect(count).toBeGreaterThan(30);
    for (let i = 0; i < count; i++) {
      const [a, b] = [axes(board, i, 2), axes(model, i, 3)];
      expect(a.most / a.least).toBeCloseTo(1, 4);
      expect(b.most / b.least).toBeCloseTo(1, 4);
      expect(b.most * 0.02).toBeCloseTo(a.most, 5);
    }
  });

  it('have the axes of an affine map: in the flat as it draws out, on the surface the other way', () => {
    const shell = flat();
    // Twice as long along a line at 30°, half as long across; then a shear whose singular values are known.
    const [c, s] = [Math.cos(Math.PI / 6), Math.sin(Math.PI / 6)];
    const map = [2 * c * c + 0.5 * s * s, 1.5 * c * s, 1.5 * c * s, 2 * s * s + 0.5 * c * c];
    const { board, model } = indicatrices([{ shell, uv: mapped(shell, map) }], 60);
    const [a, b] = [axes(board, 0, 2), axes(model, 0, 3)];
    expect(a.most / a.least).toBeCloseTo(4, 3);
    expect(Math.abs(a.along[1] / a.along[0])).toBeCloseTo(s / c, 3);
    expect(b.most / b.least).toBeCloseTo(4, 3);
    expect(Math.abs(b.along[0] * c + b.along[1] * s)).toBeLessThan(1e-3);
    // What is drawn out much further is cut short, in its own shape.
    const long = indicatrices([{ shell, uv: mapped(shell, [20, 0, 0, 0.05]) }], 60);
    expect(axes(long.board, 0, 2).most / axes(long.board, 0, 2).least).toBeCloseTo(400, 0);
    expect(axes(long.board, 0, 2).most).toBeLessThan(2.51 * 0.36 * Math.sqrt((24 * 24) / 60));
    // A shear by 1: Γ / γ = ((√5 + 1) / (√5 − 1)), by hand from its normal equations.
    const sheared = indicatrices([{ shell, uv: mapped(shell, [1, 1, 0, 1]) }], 60).board;
    const { most, least } = axes(sheared, 0, 2);
    expect(most / least).toBeCloseTo((Math.sqrt(5) + 1) / (Math.sqrt(5) - 1), 3);
  });

  it('never overlap in the flat, and take no account of the scale of a shell', () => {
    const shell = flat();
    const bent = mapped(shell, [1, 0, 0, 1]).map((x, i, all) =>
      i % 2 === 0 ? x + 0.04 * all[i + 1] ** 2 : x,
    );
    const { board, count } = indicatrices([{ shell, uv: bent }], 150);
    const all = Array.from({ length: count }, (_, i) => axes(board, i, 2));
    all.forEach((a, i) => {
      for (const b of all.slice(i + 1))
        expect(Math.hypot(a.middle[0] - b.middle[0], a.middle[1] - b.middle[1])).toBeGreaterThan(
          Math.max(a.most + b.least, a.least + b.most) * 0.999,
        );
    });
    const tenfold = indicatrices([{ shell, uv: bent.map((x) => 10 * x) }], 150);
    expect(tenfold.count).toBe(count);
    expect(axes(tenfold.board, 3, 2).most).toBeCloseTo(10 * all[3].most, 3);
    expect(indicatrices([], 100).count).toBe(0);
  });
});
