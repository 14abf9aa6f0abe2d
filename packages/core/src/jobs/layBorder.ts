import { distance } from '../mesh/distance.ts';
import { heedStop } from '../progress.ts';
import { placeOnCircle } from '../relax/placeOnCircle.ts';
import { borders } from '../surface/borders.ts';
import type { Shell } from '../surface/shell.ts';
import { fillAndRelax } from '../unfold/fillAndRelax.ts';
import { placeOnRectangle, sidesOfRectangle } from '../unfold/placeOnRectangle.ts';
import { cornersInWords, cornersOfTurns, ON_ONE_SIDE } from '../unfold/rectangle.ts';
import type { Job } from './job.ts';
import type { LaidStrip } from './straightStrips.ts';

export interface BorderTask {
  readonly shell: Shell;
  readonly shape: 'rectangle' | 'circle';
  /** Shell vertices that are to be the corners of a rectangle; found by how the border turns when absent. */
  readonly corners?: readonly number[];
  /** Whether the inside is laid within it, or the border alone. */
  readonly follows: boolean;
}

/** The longest border of a shell on a rectangle or a circle, at true lengths, and with the inside laid within it or NaN there. */
export const layBorder: Job<'lay-border', readonly BorderTask[], readonly LaidStrip[]> = {
  name: 'lay-border',
  run: (tasks, context) =>
    tasks.map(({ shell, shape, corners, follows }) => {
      heedStop(context.signal);
      const { positions, triangles, triangleFace } = shell;
      const { loops } = borders(triangles, positions.length / 3);
      if (loops.length === 0) return { problem: CLOSED, faces: [triangleFace[0]] };
      const [loop] = loops;
      const placed = shape === 'circle' ? onCircle(positions, loop) : onRectangle(shell, loop, corners);
      if (!(placed instanceof Float64Array)) return placed;
      if (!follows) {
        const onLoop = new Set(loop);
        return { uv: placed.map((x, i) => (onLoop.has(i >> 1) ? x : NaN)) };
      }
      const found = fillAndRelax(shell, loop, placed, context);
      if ('uv' in found) return found;
      const { collapsed } = found;
      return collapsed.length > 0
        ? { problem: ON_ONE_SIDE, faces: collapsed }
        : { problem: FOLDS, faces: [triangleFace[0]] };
    }),
};

const CLOSED = 'This shell has no border: cut it open first.';
const FOLDS = 'This shell folds within that border: cut its handles open first.';

function onCircle(positions: Float64Array, loop: Uint32Array): Float64Array {
  const round = loop.reduce((sum, v, i) => sum + distance(positions, v, loop[(i + 1) % loop.length]), 0);
  const placed = new Float64Array((2 * positions.length) / 3);
  placeOnCircle(positions, loop, round / (2 * Math.PI), placed);
  return placed;
}

function onRectangle(
  shell: Shell,
  loop: Uint32Array,
  chosen: readonly number[] | undefined,
): Float64Array | Extract<LaidStrip, { readonly problem: string }> {
  const corners = chosen?.map((v) => loop.indexOf(v)) ?? cornersOfTurns(shell, loop);
  const faces = [shell.triangleFace[0]];
  if (corners.includes(-1))
    return { problem: 'The corners of a rectangle must lie on the longest border of the shell.', faces };
  if (corners.length !== 4)
    return {
      problem: `Corners are not clear: ${cornersInWords(corners.length)} Pick the four points that are to be corners.`,
      faces,
    };
  return placeOnRectangle(
    shell.positions,
    sidesOfRectangle(
      shell.positions,
      loop,
      corners.toSorted((a, b) => a - b),
    ),
  );
}
