import { measureStretch } from '../measure/stretch.ts';
import type { Context } from '../progress.ts';
import { likeShell } from '../surface/coarseSurface.ts';
import type { Shell } from '../surface/shell.ts';
import { verdictOf } from '../surface/verdict.ts';
import { laidOut, overlapsOf } from './layFlat.ts';

/** What a shell would be like, unfolded and relaxed. */
export interface Predicted {
  readonly area: number;
  /** Undefined where it cannot lie flat. */
  readonly l2?: number;
  readonly linf?: number;
  readonly liesOnItself?: boolean;
}

/** Larger shells are told of by a coarser one, which stretches nearly alike. */
const MOST_TRIANGLES = 20_000;

/** @throws StoppedError */
export function predict(shell: Shell, { signal }: Pick<Context, 'signal'>): Predicted {
  if (!verdictOf(shell).canUnfold) return { area: 0 };
  const piece = likeShell(shell, MOST_TRIANGLES, signal);
  const uv = laidOut(piece, signal);
  const { area, l2, linf } = measureStretch(piece, uv);
  return { area, l2, linf, liesOnItself: overlapsOf(piece, uv, 1).length > 0 };
}
