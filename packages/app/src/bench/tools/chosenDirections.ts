import type { BenchStore } from '../../store/bench.ts';
import { NO_UV, NOWHERE } from '../../worker/protocol.ts';
import type { Turned } from '../snaps/snap.ts';

/** Of more edges none takes hold: a turn would stick everywhere. */
const MOST = 16;

/** Ways in which selected edges run on the Board, radians: those of selected shells, which are turned, and of others. */
export function chosenDirections({
  model,
  flat,
  edges,
  chosen,
}: Pick<BenchStore, 'model' | 'flat' | 'edges' | 'chosen'>): Pick<Turned, 'own' | 'still'> {
  const [own, still]: [number[], number[]] = [[], []];
  if (!model || !flat || edges.size > MOST) return { own, still };
  const { uv } = flat;
  for (const e of edges)
    for (const side of [4 * e, 4 * e + 2]) {
      const [a, b] = [model.edgeEnds[side], model.edgeEnds[side + 1]];
      if (a === NOWHERE || uv[2 * a] === NO_UV) continue;
      const shell = flat.faceShell[model.triangleFace[Math.floor(a / 3)]];
      (chosen.has(shell) ? own : still).push(
        Math.atan2(uv[2 * b + 1] - uv[2 * a + 1], uv[2 * b] - uv[2 * a]),
      );
    }
  return { own, still };
}
