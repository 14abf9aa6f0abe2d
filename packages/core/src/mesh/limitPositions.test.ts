import { describe, expect, it } from 'vitest';
import { cube, sheet, torus } from '../testing/shapes.ts';
import { catmullClark } from './catmullClark.ts';
import { limitPositions } from './limitPositions.ts';
import type { Mesh } from './mesh.ts';

const levels = (mesh: Mesh, count: number): Mesh =>
  count === 0 ? mesh : levels(catmullClark(mesh).mesh, count - 1);

describe('limit positions', () => {
  it('are where ever finer levels go', () => {
    const triangulated: Mesh = {
      ...cube(),
      faceStart: Uint32Array.from([0, 3, 6, 10, 14, 18, 22, 26]),
      cornerVertex: Uint32Array.from([3, 2, 1, 3, 1, 0, ...cube().cornerVertex.subarray(4)]),
    };
    const sheets = sheet(3, 4, (i, j) => [j, i, Math.sin(i) * j]);
    for (const mesh of [cube(), torus(7, 5), sheets, triangulated]) {
      const limit = limitPositions(mesh);
      const fine = levels(mesh, 5).positions;
      limit.forEach((x, i) => {
        expect(Math.abs(x - fine[i])).toBeLessThan(2e-3);
      });
      // And they do not move when the cage is refined.
      limitPositions(levels(mesh, 1))
        .subarray(0, limit.length)
        .forEach((x, i) => {
          expect(x).toBeCloseTo(limit[i], 12);
        });
    }
  });

  it('put a cube corner at half its distance', () => {
    // Halstead et al. 1993 with n = 3 on the once refined cube: v = 5/9, Σe, Σf from its face and edge points.
    // e = (½, ½, 0)-like midpoints of edge and face points, f = face points (1, 0, 0)-like, all per axis.
    const [v, e, f] = [5 / 9, 0.75 + 0.75, 1];
    expect(limitPositions(cube())[0]).toBeCloseTo(-(9 * v + 4 * e + f) / 24, 12);
  });
});
