import { HemError } from '../errors.ts';
import { heedStop } from '../progress.ts';
import type { Shell } from '../surface/shell.ts';
import { rectangle } from '../unfold/rectangle.ts';
import { straightRows } from '../unfold/straightRows.ts';
import type { Job } from './job.ts';

export interface StripsTask {
  readonly shell: Shell;
  /** Vertices of the model at every corner. */
  readonly cornerVertex: Uint32Array;
}

/** A strip laid straight, model units; or why it cannot be, with the faces in the way. */
export type LaidStrip =
  | { readonly uv: Float64Array }
  | { readonly problem: string; readonly faces: readonly number[] };

/** Lays strips straight: ladders of quads in rows, others as rectangles. */
export const straightStrips: Job<'straight-strips', readonly StripsTask[], readonly LaidStrip[]> = {
  name: 'straight-strips',
  run: (tasks, context) =>
    tasks.map(({ shell, cornerVertex }) => {
      heedStop(context.signal);
      try {
        return { uv: inRows(shell) ?? rectangle(shell, { cornerVertex }, context) };
      } catch (error) {
        if (error instanceof HemError && error.code === 'not-a-strip')
          return { problem: error.message, faces: error.ids };
        throw error;
      }
    }),
};

/** Undefined where the faces make no rows. */
function inRows(shell: Shell): Float64Array | undefined {
  try {
    return straightRows(shell);
  } catch (error) {
    if (error instanceof HemError && error.code === 'not-a-strip') return undefined;
    throw error;
  }
}
