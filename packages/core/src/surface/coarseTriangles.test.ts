import { describe, expect, it } from 'vitest';
import { borders } from '../surface/borders.ts';
import { head } from '../testing/sculpts.ts';
import { sheet, torus, wholeShell } from '../testing/shapes.ts';
import { coarseTriangles } from './coarseTriangles.ts';

/** A little noise, the same every time, as other rounding would bring. */
const shaken = (positions: Float64Array, by: number): Float64Array =>
  positions.map((x, i) => x * (1 + by * Math.sin(7919 * i)));

describe.each([
  ['a torus of quads', wholeShell(torus(40, 20))],
  ['a square of quads', wholeShell(sheet(30, 30, (i, j) => [j, 0, i]))],
  ['a sculpted head', head(30)],
])('%s made coarser', (_, { positions, triangles }) => {
  it.each([900, 400, 151])('has %d triangles, or one less, of the same topology', (count) => {
    const coarse = coarseTriangles(positions, triangles, count);
    expect(coarse.length / 3).toBeLessThanOrEqual(count);
    expect(coarse.length / 3).toBeGreaterThanOrEqual(count - 1);
    const [before, after] = [triangles, coarse].map((each) => {
      const { loops, edgeCount, nonManifold } = borders(each, positions.length / 3);
      return { loops: loops.length, nonManifold, euler: new Set(each).size - edgeCount + each.length / 3 };
    });
    expect(after).toEqual(before);
  });

  it('is the same whatever the last digits of its vertices', () => {
    const coarse = coarseTriangles(positions, triangles, 400);
    for (const by of [1e-15, 1e-13, 1e-11])
      expect(coarseTriangles(shaken(positions, by), triangles, 400)).toEqual(coarse);
  });

  it('is left as it is where it has few enough', () => {
    expect(coarseTriangles(positions, triangles, triangles.length / 3)).toBe(triangles);
  });
});
