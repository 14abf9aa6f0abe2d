import { measureStretch } from '../measure/stretch.ts';
import type { Context } from '../progress.ts';
import { likeShell } from '../surface/coarseSurface.ts';
import type { Shell } from '../surface/shell.ts';
import { shellTopology } from '../surface/shellTopology.ts';
import { laidOut } from './layFlat.ts';

/** What a shell would be like, unfolded and relaxed. */
export interface Predicted {
  readonly area: number;
  /** Undefined where it cannot lie flat. */
  readonly l2?: number;
  readonly linf?: number;
  readonly angleMean?: number;
  readonly areaMean?: number;
  readonly liesOnItself?: boolean;
}

/** Larger shells are told of by a coarser one, which stretches nearly alike; and where there is no time. */
const [MOST_TRIANGLES, MOST_IN_HASTE] = [20_000, 2500];

/** @throws StoppedError */
export function predict(shell: Shell, { signal }: Pick<Context, 'signal'>, hastily = false): Predicted {
  if (!shellTopology(shell).canUnfold) return { area: 0 };
  // Which way its polygons are split hardly matters to what is told.
  const piece = {
    ...likeShell(shell, hastily ? MOST_IN_HASTE : MOST_TRIANGLES, signal),
    polygons: undefined,
  };
  const { uv, onItself } = laidOut(piece, signal);
  const { area, l2, linf, angleMean, areaMean } = measureStretch(piece, uv);
  return { area, l2, linf, angleMean, areaMean, liesOnItself: onItself === 'yes' };
}
