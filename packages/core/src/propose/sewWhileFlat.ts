import FlatQueue from 'flatqueue';
import { StoppedError } from '../errors.ts';
import type { Connectivity } from '../mesh/connectivity.ts';
import type { Mesh } from '../mesh/mesh.ts';
import type { Context } from '../progress.ts';
import type { SeamRun } from './seamRuns.ts';
import { type SewingOptions, sewing } from './sewing.ts';

export interface SewOptions extends SewingOptions {
  /** Runs of given seams that may be sewn; those of one set only together, such as a run and its mirror image. */
  setsOf(seams: Uint8Array): readonly (readonly SeamRun[])[];
}

/**
 * Sews runs of seams while every shell can lie flat, is a disc, does not lie on itself and stretches little: of all runs the one first that
 * saves the most seam for the least stretch. Each is tried by laying the joined shell flat, so that what is told of stretch is measured
 * (greedy, with gains brought up to date when their turn comes: Minoux 1978). Seams that hide least go first, and what remains lies
 * where it costs least; a run whose one end is the tip of a cut shortens it, which leaves a dart as long as it must be.
 *
 * @param mesh  of triangles
 * @param seams  1 for every cut edge; every shell of it a disc
 * @returns seams that are left; where it was stopped, those that were left by then
 */
export function sewWhileFlat(
  mesh: Mesh,
  connectivity: Connectivity,
  seams: Uint8Array,
  { setsOf, ...options }: SewOptions,
  context: Context,
): Uint8Array {
  const state = sewing(mesh, connectivity, seams, options, context.signal);
  for (;;) {
    const sets = setsOf(state.seams);
    const queue = new FlatQueue<number>();
    sets.forEach((runs, s) => {
      const score = state.lastScore(runs) ?? Infinity;
      // What is out of date is tried anew when its turn comes; what never was, first.
      if (!state.known(runs)) queue.push(s, score < Infinity ? score : -1);
      else if (score < Infinity) queue.push(s, score);
    });
    let taken: readonly SeamRun[] | undefined;
    while (queue.length > 0 && !taken) {
      if (context.signal.aborted) return state.seams;
      const value = queue.peekValue() as number;
      const s = queue.pop() as number;
      let score: number;
      try {
        ({ score } = state.tryOut(sets[s]));
      } catch (error) {
        // What was sewn until it was stopped stands.
        if (error instanceof StoppedError) return state.seams;
        throw error;
      }
      if (score === Infinity) continue;
      if (score > value) queue.push(s, score);
      else taken = sets[s];
    }
    if (!taken) return state.seams;
    state.sew(taken);
  }
}
