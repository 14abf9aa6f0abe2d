import { packBetter } from '../pack/packBetter.ts';
import { packFirst } from '../pack/packFirst.ts';
import type { PackOptions, PackShell } from '../pack/packShell.ts';
import { relax } from '../relax/relax.ts';
import { type Shell, shellFromTriangles } from '../surface/shell.ts';
import { METHODS, unfoldShell } from '../unfold/unfold.ts';
import type { Job } from './job.ts';

/** Rows and columns of the sheet that is solved. */
const SIDE = 24;

/** So many copies of the flats are packed, for so many rounds. */
const [COPIES, ROUNDS] = [12, 8];

/** Has every solver and the packer compiled, by a small sheet with a hill and one with a horn, so that the first real shell is done as quickly as the tenth. */
export const warmUp: Job<'warm-up', undefined, number> = {
  name: 'warm-up',
  run(_, context) {
    const shells = [6, 60].map(raised);
    const flats: PackShell[] = [];
    for (const shell of shells) {
      for (const method of METHODS) {
        const { uv } = unfoldShell(shell, method, context);
        relax(shell, uv, { steps: 6 }, context);
        flats.push({ triangles: shell.triangles, uv, turning: 'free' });
      }
    }
    const many = Array.from({ length: COPIES }, () => flats).flat();
    const start = packFirst(many, TILE, context);
    if (start) packBetter(many, start, { ...TILE, seed: 1, rounds: ROUNDS }, context);
    return shells.length;
  },
};

const TILE: PackOptions = { frame: [0, 0, 1, 1], gap: 1 / 256, texel: 1 / 2048 };

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
