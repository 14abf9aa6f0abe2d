import { relax } from '../relax/relax.ts';
import { shellFromTriangles } from '../surface/shell.ts';
import { METHODS, unfoldShell } from '../unfold/unfold.ts';
import type { Job } from './job.ts';

/** Rows and columns of the sheet that is solved. */
const SIDE = 24;

/** Has every solver compiled, by a small sheet with a hill, so that the first real shell is solved as quickly as the tenth. */
export const warmUp: Job<'warm-up', undefined, number> = {
  name: 'warm-up',
  run(_, context) {
    const positions: number[] = [];
    const triangles: number[] = [];
    for (let i = 0; i <= SIDE; i++) {
      for (let j = 0; j <= SIDE; j++) {
        positions.push(j, i, 6 * Math.exp(-((i - SIDE / 2) ** 2 + (j - SIDE / 2) ** 2) / SIDE));
        if (i === SIDE || j === SIDE) continue;
        const a = i * (SIDE + 1) + j;
        triangles.push(a, a + 1, a + SIDE + 2, a, a + SIDE + 2, a + SIDE + 1);
      }
    }
    const shell = shellFromTriangles(positions, triangles);
    for (const method of METHODS) {
      const { uv } = unfoldShell(shell, method, context);
      relax(shell, uv, { steps: 6 }, context);
    }
    return triangles.length / 3;
  },
};
