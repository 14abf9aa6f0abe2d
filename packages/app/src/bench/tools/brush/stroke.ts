import { afterPick, perform } from '../../../store/acts.ts';
import { useBench } from '../../../store/bench.ts';
import { askQuietly } from '../../../store/worker.ts';
import { uvOf } from '../../panes/places.ts';
import { handle } from '../../panes/rendererHandle.ts';
import { newestOnly } from '../newestOnly.ts';
import type { Grip, Place } from '../tool.ts';

/** Touches along a stroke lie so far apart, as a part of the radius. */
const SPACING = 0.15;
/** A hand that rests goes on relaxing so often, milliseconds. The other brushes go by the path of the hand alone. */
const RESTING = 60;

/** Where the brush is on the page, and its radius in pixels: a pen that lies flatter covers more. */
export const ringAt = ({
  x,
  y,
  tilt,
}: Pick<Place, 'x' | 'y' | 'tilt'>): readonly [number, number, number] => [
  x,
  y,
  useBench.getState().handRadius * (1 + tilt),
];

/** A stroke under the hand: shown touch by touch, done as one act when the hand lets go. */
export function stroke(face: number, start: Place): Grip {
  const { handBrush, handStrength, handMirrored } = useBench.getState();
  const middle = handMirrored ? middleOf(face) : undefined;
  const dabs: number[] = [];
  let at = uvOf(start.x, start.y);
  let last: Sample = start;
  let shown = 0;
  let ended = false;

  const touch = (sample: Sample, force: boolean): void => {
    const [u, v] = uvOf(sample.x, sample.y);
    const scale = handle.renderer?.board.view.scale ?? 1;
    const radius = ringAt(sample)[2] / scale;
    const far = Math.hypot(u - at[0], v - at[1]);
    const steps = Math.floor(far / (SPACING * radius));
    if (steps === 0 && !force) return;
    const parts = Math.max(1, steps);
    const [du, dv] = [(u - at[0]) / parts, (v - at[1]) / parts];
    // A mouse presses half; a pen as it is pressed.
    const strength = Math.min(1, handStrength * 2 * sample.pressure);
    for (let i = 1; i <= parts; i++) {
      const [pu, pv] = [at[0] + (i - 1) * du, at[1] + (i - 1) * dv];
      dabs.push(pu, pv, du, dv, radius, strength);
      if (middle !== undefined) dabs.push(2 * middle - pu, pv, -du, dv, radius, strength);
    }
    at = [u, v];
    last = sample;
    void follow(dabs.length);
  };
  const follow = newestOnly(async (touches: number) => {
    if (shown >= touches || ended) return;
    shown = dabs.length;
    const picture = await askQuietly('brushed', { face, brush: handBrush, dabs: [...dabs] });
    if (!picture || ended) return;
    handle.renderer?.drawn.show('drag', picture);
    handle.renderer?.showStretch(picture);
  });
  const resting = setInterval(() => {
    if (handBrush === 'relax') touch(last, true);
  }, RESTING);
  if (handBrush !== 'push') touch(start, true);
  const end = (): void => {
    ended = true;
    clearInterval(resting);
  };
  return {
    ...(handBrush !== 'push' && { stillCounts: true }),
    move(to) {
      for (const sample of to.trail) touch(sample, false);
      useBench.setState({ ring: ringAt(to) });
    },
    drop(to) {
      touch(to, dabs.length > 0 && handBrush === 'push');
      end();
      if (dabs.length === 0) return;
      afterPick(
        perform('brush', { face, brush: handBrush, dabs }).finally(() =>
          handle.renderer?.drawn.clear('drag'),
        ),
      );
    },
    cancel() {
      end();
      handle.renderer?.drawn.clear('drag');
      handle.renderer?.showStretch(undefined);
    },
  };
}

type Sample = Pick<Place, 'x' | 'y' | 'pressure' | 'tilt'>;

/** u of the middle of the shell of a face, about which the other hand is mirrored. */
function middleOf(face: number): number | undefined {
  const { flat, shells } = useBench.getState();
  const box = flat && shells[flat.faceShell[face]]?.box;
  return box && (box[0] + box[2]) / 2;
}
