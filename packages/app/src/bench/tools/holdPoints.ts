import type { UvMatrix } from '@blunt-hem/core/surface/similarity';
import { afterPick, perform } from '../../store/acts.ts';
import { useBench } from '../../store/bench.ts';
import { askQuietly } from '../../store/worker.ts';
import { uvOf } from '../panes/places.ts';
import { handle } from '../panes/rendererHandle.ts';
import { chosenPoints } from './chosenPoints.ts';
import { bordersRoundPoints } from './flatBorders.ts';
import { newestOnly } from './newestOnly.ts';
import { type Held, snappedMove } from './snappedMove.ts';
import type { Grip, Place } from './tool.ts';

/** The radius that the wheel begins with, and what a pixel of it does. */
const [FIRST, GROWTH] = [1 / 64, 0.0015];
const [LEAST, MOST] = [1 / 512, 1];

/** The selected points under the hand, with what lies near them; the wheel makes that more or less. */
export function holdPoints(start: Place): Grip {
  const [alone, withOthers] = [false, true].map((follows) =>
    lazy(() => snappedMove(start, heldPoints(start, follows))),
  );
  return gripPoints((to) => (useBench.getState().pullRadius > 0 ? withOthers() : alone())(to));
}

/** Works something out when it is first asked for. */
function lazy<T>(workOut: () => T): () => T {
  let known: { readonly value: T } | undefined;
  return () => {
    known ??= { value: workOut() };
    return known.value;
  };
}

/** @param follows  whether what is near the points goes along, so that they take hold of nothing of their own shells */
function heldPoints(start: Place, follows: boolean): Held | undefined {
  const state = useBench.getState();
  const { model, flat, shells } = state;
  const { at, box } = chosenPoints(state);
  if (!model || !flat || !box) return undefined;
  const own = new Set(at.map(({ shell }) => shell));
  return {
    box,
    others: shells.flatMap((row, s) => (row.box && !own.has(s) ? [row.box] : [])),
    borders: bordersRoundPoints(model, flat, at, uvOf(start.x, start.y), follows),
    hasOutline: false,
  };
}

/** Points that are selected, or those of selected edges and faces, under the hand by any map of the flat. */
export function gripPoints(matrixAt: (to: Place) => UvMatrix): Grip {
  const { places } = chosenPoints(useBench.getState());
  let matrix: UvMatrix = [1, 0, 0, 1, 0, 0];
  let ended = false;
  const follow = newestOnly(async (there: UvMatrix) => {
    const { pullRadius: radius, falloff } = useBench.getState();
    const picture = ended
      ? undefined
      : await askQuietly('pulled-points', { places, matrix: there, radius, falloff });
    if (picture && !ended) handle.renderer?.drawn.show('drag', picture);
  });
  const end = (): void => {
    ended = true;
    handle.renderer?.drawn.clear('drag');
    useBench.setState({ pulled: undefined, guides: [] });
  };
  const show = (): void => {
    useBench.setState({ pulled: matrix });
    void follow(matrix);
  };
  return {
    move(to) {
      matrix = matrixAt(to);
      show();
    },
    wheel(pixels) {
      const { pullRadius } = useBench.getState();
      const next = (pullRadius || FIRST) * Math.exp(-pixels * GROWTH);
      useBench.setState({ pullRadius: next < LEAST ? 0 : Math.min(MOST, next) });
      show();
    },
    drop(to) {
      ended = true;
      afterPick(transformPoints(matrixAt(to)).finally(end));
    },
    cancel: end,
  };
}

/** Moves, turns or scales points that are selected, or those of selected edges and faces, with what lies near them. */
export async function transformPoints(matrix: UvMatrix): Promise<void> {
  const state = useBench.getState();
  const { places } = chosenPoints(state);
  const { pullRadius: radius, falloff, inside } = state;
  const [a, b, c, d, ...by] = matrix;
  const isMove = a === 1 && b === 0 && c === 0 && d === 1;
  await (isMove
    ? perform('move-points', { places, by, radius, falloff, inside })
    : perform('transform-points', { places, matrix, radius, falloff, inside }));
}
