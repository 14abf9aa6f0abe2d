import { describe, expect, it } from 'vitest';
import { unattended } from '../progress.ts';
import { borders } from '../surface/borders.ts';
import { restTriangles } from '../surface/restTriangles.ts';
import { type Shell, shellFromTriangles } from '../surface/shell.ts';
import { sheet, wholeShell } from '../testing/shapes.ts';
import { cornerAngles } from './angleBased.ts';
import { flatAngles } from './flatAngles.ts';

/**
 * Where Σ (αᵢ − βᵢ)² / βᵢ² is least subject to the constraints of Sheffer et al. (2005), its gradient is a combination of the constraints'
 * gradients (Lagrange). Both are worked out here by differences of the paper's own formulas, the wheel as a product of sines, apart
 * from the solver's code.
 */
function constraintsOf({ triangles }: Shell, onBorder: Uint8Array) {
  const inner = [...onBorder.keys()].filter((v) => !onBorder[v]);
  return (angles: Float64Array): number[] => {
    const sums = Array.from({ length: angles.length / 3 }, (_, t) => {
      return angles[3 * t] + angles[3 * t + 1] + angles[3 * t + 2] - Math.PI;
    });
    const round = inner.flatMap((v) => {
      let [sum, wheel] = [-2 * Math.PI, 1];
      triangles.forEach((w, i) => {
        if (w !== v) return;
        const t = i - (i % 3);
        sum += angles[i];
        wheel *= Math.sin(angles[t + ((i + 1) % 3)]) / Math.sin(angles[t + ((i + 2) % 3)]);
      });
      return [sum, wheel - 1];
    });
    return [...sums, ...round];
  };
}

/** How much of a vector lies outside the span of others, as a part of it (Gram–Schmidt). */
function outside(vector: readonly number[], span: readonly (readonly number[])[]): number {
  const dot = (a: readonly number[], b: readonly number[]) => a.reduce((sum, x, i) => sum + x * b[i], 0);
  const basis: number[][] = [];
  const rest = (v: readonly number[]) => {
    let left = [...v];
    for (let twice = 0; twice < 2; twice++)
      for (const b of basis) {
        const along = dot(left, b);
        left = left.map((x, i) => x - along * b[i]);
      }
    return left;
  };
  for (const v of span) {
    const left = rest(v);
    const length = Math.sqrt(dot(left, left));
    if (length > 1e-9 * Math.sqrt(dot(v, v))) basis.push(left.map((x) => x / length));
  }
  const left = rest(vector);
  return Math.sqrt(dot(left, left) / dot(vector, vector));
}

/** A fan of unequal triangles round a raised middle. */
const fan = shellFromTriangles(
  [0, 0, 0.55, 1, 0, 0, 0.8, 0.9, 0, -0.3, 1.2, 0, -1.1, 0.1, 0, -0.2, -0.7, 0, 0.6, -0.8, 0],
  [1, 2, 3, 4, 5, 6].flatMap((i) => [0, i, (i % 6) + 1]),
);
const hill = wholeShell(
  sheet(4, 4, (i, j) => [j + 0.2 * Math.sin(3 * i), i, 1.3 * Math.exp(-((i - 2) ** 2 + (j - 1.7) ** 2) / 2)]),
);

describe('flat angles are the nearest there are, each weighed by its own size', () => {
  it.each([
    ['a fan', fan],
    ['a hill', hill],
  ] as const)('%s', (_, shell) => {
    const onBorder = new Uint8Array(shell.positions.length / 3);
    for (const loop of borders(shell.triangles, onBorder.length).loops) for (const v of loop) onBorder[v] = 1;
    const surface = cornerAngles(restTriangles(shell.positions, shell.triangles));
    const { angles } = flatAngles(shell, surface, onBorder, unattended);
    // β: the surface's angles, scaled to sum to 2π round inner vertices.
    const sum = new Float64Array(onBorder.length);
    surface.forEach((angle, i) => {
      sum[shell.triangles[i]] += angle;
    });
    const beta = surface.map((angle, i) => {
      const v = shell.triangles[i];
      return onBorder[v] ? angle : (angle * 2 * Math.PI) / sum[v];
    });
    const constraints = constraintsOf(shell, onBorder);
    for (const excess of constraints(angles)) expect(Math.abs(excess)).toBeLessThan(1e-6);
    const h = 1e-6;
    const columns = Array.from(angles, (_angle, i) => {
      const [up, down] = [angles.slice(), angles.slice()];
      up[i] += h;
      down[i] -= h;
      const [above, below] = [constraints(up), constraints(down)];
      return above.map((x, r) => (x - below[r]) / (2 * h));
    });
    const rows = columns[0].map((_x, r) => columns.map((column) => column[r]));
    const gradient = (power: number) => Array.from(angles, (a, i) => (2 * (a - beta[i])) / beta[i] ** power);
    // The weighted objective has its least value here; the unweighted one has not.
    expect(outside(gradient(2), rows)).toBeLessThan(0.02);
    expect(outside(gradient(0), rows)).toBeGreaterThan(0.1);
  });
});
