import { measureStretch } from '../measure/stretch.ts';
import type { Context } from '../progress.ts';
import { type CoarseSurface, coarseSurface, likeShell } from '../surface/coarseSurface.ts';
import type { Shell } from '../surface/shell.ts';
import { verdictOf } from '../surface/verdict.ts';
import { laidOut, MOST_PAIRS, overlapsOf } from './layFlat.ts';

/** What a shell would be like, unfolded and relaxed. */
export interface Predicted {
  readonly area: number;
  /** Undefined where it cannot lie flat. */
  readonly l2?: number;
  readonly linf?: number;
  readonly liesOnItself?: boolean;
  /** Where it does: pairs of triangles of its `judged` surface, two a pair, as many as tell where. */
  readonly overlaps?: Uint32Array;
  /** Whether it is nearly closed, and takes long to lay flat. */
  readonly closed?: boolean;
}

/** Larger shells are told of by a coarser one, which stretches nearly alike; and where there is no time. */
const [MOST_TRIANGLES, MOST_IN_HASTE] = [20_000, 2500];

/** The surface by which a shell is judged. */
export const judged = (shell: Shell, signal: Context['signal']): CoarseSurface =>
  coarseSurface(shell, MOST_TRIANGLES, signal);

/** @throws StoppedError */
export function predict(shell: Shell, { signal }: Pick<Context, 'signal'>, hastily = false): Predicted {
  if (!verdictOf(shell).canUnfold) return { area: 0 };
  const piece = likeShell(shell, hastily ? MOST_IN_HASTE : MOST_TRIANGLES, signal);
  const { uv, closed } = laidOut(piece, signal);
  const { area, l2, linf } = measureStretch(piece, uv);
  const overlaps = overlapsOf(piece, uv, MOST_PAIRS);
  return { area, l2, linf, liesOnItself: overlaps.length > 0, overlaps, closed };
}
