import { describe, expect, it } from 'vitest';
import { sheet, sphericalCap, wholeShell } from '../testing/shapes.ts';
import { distanceFrom } from './distanceFrom.ts';
import { shellFromTriangles } from './shell.ts';

describe('distances along a surface', () => {
  it('are straight on a plane', () => {
    const { positions, triangles } = wholeShell(sheet(40, 40, (i, j) => [j, 0, i]));
    const distance = distanceFrom(positions, triangles, [0]);
    distance.forEach((d, v) => {
      const straight = Math.hypot(positions[3 * v], positions[3 * v + 2]);
      expect(d).toBeGreaterThanOrEqual(straight - 1e-9);
      expect(d).toBeLessThan(straight + 0.3);
    });
  });

  it('are great circles on a sphere', () => {
    const { positions, triangles } = sphericalCap(60, 120, 3);
    const distance = distanceFrom(positions, triangles, [0]);
    distance.forEach((d, v) => {
      expect(Math.abs(d - Math.acos(Math.min(1, positions[3 * v + 1])))).toBeLessThan(0.02);
    });
  });

  it('say where there is no way', () => {
    const two = shellFromTriangles(
      [0, 0, 0, 1, 0, 0, 0, 0, 1, 5, 0, 0, 6, 0, 0, 5, 0, 1],
      [0, 1, 2, 3, 4, 5],
    );
    const distance = distanceFrom(two.positions, two.triangles, [0]);
    expect(Array.from(distance.subarray(0, 3))).toEqual([0, 1, 1]);
    expect(Array.from(distance.subarray(3))).toEqual([Infinity, Infinity, Infinity]);
  });
});
