import { afterPick, perform } from '../../store/acts.ts';
import { useBench } from '../../store/bench.ts';
import { askQuietly } from '../../store/worker.ts';
import { placesOfPoints } from '../commands/flattening.ts';
import { uvOf } from '../panes/places.ts';
import { handle } from '../panes/rendererHandle.ts';
import { newestOnly } from './newestOnly.ts';
import type { Grip, Place } from './tool.ts';

/** The radius that the wheel begins with, and what a pixel of it does. */
const [FIRST, GROWTH] = [1 / 64, 0.0015];
const [LEAST, MOST] = [1 / 512, 1];

/** The selected points under the hand, with what lies near them; the wheel makes that more or less. */
export function holdPoints(start: Place): Grip {
  const places = placesOfPoints(useBench.getState());
  const [u0, v0] = uvOf(start.x, start.y);
  let by: [number, number] = [0, 0];
  let ended = false;
  const follow = newestOnly(async (there: [number, number]) => {
    const { pullRadius: radius, falloff } = useBench.getState();
    const picture = ended
      ? undefined
      : await askQuietly('pulled-points', { places, matrix: [1, 0, 0, 1, ...there], radius, falloff });
    if (picture && !ended) handle.renderer?.drawn.show('drag', picture);
  });
  const end = (): void => {
    ended = true;
    handle.renderer?.drawn.clear('drag');
    useBench.setState({ pulled: undefined });
  };
  const show = (): void => {
    useBench.setState({ pulled: by });
    void follow(by);
  };
  const moveTo = ({ x, y }: Place): void => {
    const [u, v] = uvOf(x, y);
    by = [u - u0, v - v0];
  };
  return {
    move(to) {
      moveTo(to);
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
      moveTo(to);
      const { pullRadius: radius, falloff, inside } = useBench.getState();
      afterPick(perform('move-points', { places, by, radius, falloff, inside }).finally(end));
    },
    cancel: end,
  };
}
