import { describe, expect, it } from 'vitest';
import type { Mesh } from '../mesh/mesh.ts';
import { meshOfShell } from '../surface/cutShell.ts';
import { dirtyScan, head } from '../testing/sculpts.ts';
import { cube, horn, sheet, torus, tube } from '../testing/shapes.ts';
import { seeded, wander } from '../testing/wander.ts';

/** Short here; `npm run bench wander` walks for thousands of acts. */
describe('random acts', () => {
  it.each<[string, () => Mesh]>([
    ['a cube', cube],
    [
      'a hill of quads',
      () => sheet(8, 8, (i, j) => [j, 4 * Math.exp(-((i - 4) ** 2 + (j - 4) ** 2) / 5), i]),
    ],
    ['a torus', () => torus(10, 8)],
    ['a horn', () => meshOfShell(horn(24, 8, 12))],
    ['a sleeve', () => meshOfShell(tube(20, 8, 9))],
    ['a head', () => meshOfShell(head(14))],
    ['a dirty scan', () => dirtyScan(14)],
  ])('on %s break nothing', async (_, make) => {
    const { done, refused } = await wander(make(), 60, seeded(20_261_126));
    expect(done).toBeGreaterThan(3);
    expect(refused).toBeLessThan(60);
  });
});
