import { relax } from '../relax/relax.ts';
import { type Shell, shellFromTriangles } from '../surface/shell.ts';
import { METHODS, unfoldShell } from '../unfold/unfold.ts';
import type { Job } from './job.ts';

/** Rows and columns of the sheet that is solved. */
const SIDE = 24;

/** Has every solver compiled, by a small sheet with a hill and one with a horn, so that the first real shell is solved as quickly as the tenth. */
export const warmUp: Job<'warm-up', undefined, number> = {
  name: 'warm-up',
  run(_, context) {
    const shells = [6, 60].map(raised);
    for (const shell of shells) {
      for (const method of METHODS) {
        const { uv } = unfoldShell(shell, method, context);
        relax(shell, uv, { steps: 6 }, context);
      }
    }
    return shells.length;
  },
};

/** A square sheet, its middle raised so high. */
function raised(height: number): Shell {
  const positions: number[] = [];
  const triangles: number[] = [];
  for (let i = 0; i <= SIDE; i++) {
    for (let j = 0; j <= SIDE; j++) {
      positions.push(j, i, height * Math.exp(-((i - SIDE / 2) ** 2 + (j - SIDE / 2) ** 2) / SIDE));
      if (i === SIDE || j === SIDE) continue;
      const a = i * (SIDE + 1) + j;
      triangles.push(a, a + 1, a + SIDE + 2, a, a + SIDE + 2, a + SIDE + 1);
    }
  }
  return shellFromTriangles(positions, triangles);
}
