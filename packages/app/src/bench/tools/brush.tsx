import { BRUSHES, type Brush } from '@blunt-hem/core/relax/brush';
import { IconHandMove } from '@tabler/icons-react';
import { Checkbox, Select } from 'antd';
import { afterPick, hint, perform } from '../../store/acts.ts';
import { useBench } from '../../store/bench.ts';
import { ArtistError, ask } from '../../store/worker.ts';
import { uvOf } from '../panes/places.ts';
import { handle } from '../panes/rendererHandle.ts';
import { RailSlider } from '../rail/RailSlider.tsx';
import type { Grip, Place, Tool } from './tool.ts';

/** Touches along a stroke lie so far apart, as a part of the radius. */
const SPACING = 0.15;
/** A hand that rests goes on relaxing so often, milliseconds. The other brushes go by the path of the hand alone. */
const RESTING = 60;

const LABELS: Readonly<Record<Brush, string>> = {
  push: 'Push',
  relax: 'Relax',
  gather: 'Gather',
  spread: 'Spread',
};

/** Pushes, evens out, gathers and spreads the flat by hand; no face ever folds. */
export const brush: Tool = {
  name: 'brush',
  label: 'By hand',
  help: 'Push, relax, gather or spread the flat by a brush on the Board; pins hold, and no face folds',
  key: 'h',
  icon: IconHandMove,
  panes: ['board'],
  hover(at) {
    useBench.setState({ ring: ringAt(at) });
    void makeReady(at);
  },
  leave: () => useBench.setState({ ring: undefined }),
  leaveHand: () => useBench.setState({ ring: undefined }),
  async press(at) {
    const found = await at.pick();
    if (found) return stroke(found.face, at);
    hint('Begin on a shell: what lies under the brush moves.');
    return undefined;
  },
  Settings() {
    const { handBrush, handRadius, handStrength, handMirrored } = useBench();
    return (
      <>
        <Select<Brush>
          size="small"
          className="wide"
          aria-label="What the hand does"
          value={handBrush}
          options={BRUSHES.map((value) => ({ value, label: LABELS[value] }))}
          onChange={(value) => useBench.setState({ handBrush: value })}
        />
        <RailSlider
          left="Radius"
          min={8}
          max={240}
          value={handRadius}
          onChange={(value) => useBench.setState({ handRadius: value })}
          label="Radius of the hand, pixels"
        />
        <RailSlider
          left="Strength"
          min={0.05}
          max={1}
          step={0.05}
          value={handStrength}
          onChange={(value) => useBench.setState({ handStrength: value })}
          label="Strength of the hand"
        />
        <Checkbox
          className="rail-check"
          checked={handMirrored}
          onChange={(event) => useBench.setState({ handMirrored: event.target.checked })}
        >
          Mirrored
        </Checkbox>
      </>
    );
  },
};

/** The flat, and its shell that was made ready last. */
let ready: { readonly flat: unknown; readonly shell: number } | undefined;
let readying = false;

/** Has the shell under the pointer made ready, so that the first touch is as quick as the others. */
async function makeReady(at: Place): Promise<void> {
  if (readying) return;
  readying = true;
  const { flat, handBrush } = useBench.getState();
  try {
    const found = await at.pick();
    if (!found || (ready?.flat === flat && ready?.shell === found.shell)) return;
    ready = { flat, shell: found.shell };
    await ask('brushed', { face: found.face, brush: handBrush, dabs: [] });
  } catch (error) {
    // What cannot be brushed is told when it is pressed on.
    if (!(error instanceof ArtistError)) throw error;
  } finally {
    readying = false;
  }
}

/** Where the brush is on the page, and its radius in pixels: a pen that lies flatter covers more. */
const ringAt = ({ x, y, tilt }: Pick<Place, 'x' | 'y' | 'tilt'>): readonly [number, number, number] => [
  x,
  y,
  useBench.getState().handRadius * (1 + tilt),
];

/** A stroke under the hand: shown touch by touch, done as one act when the hand lets go. */
function stroke(face: number, start: Place): Grip {
  const { handBrush, handStrength, handMirrored } = useBench.getState();
  const middle = handMirrored ? middleOf(face) : undefined;
  const dabs: number[] = [];
  let at = uvOf(start.x, start.y);
  let last: Sample = start;
  let shown = 0;
  let asking = false;
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
    if (!asking) void follow();
  };
  const follow = async (): Promise<void> => {
    asking = true;
    while (shown < dabs.length && !ended) {
      shown = dabs.length;
      const picture = await ask('brushed', { face, brush: handBrush, dabs: [...dabs] }).catch((error) => {
        if (!(error instanceof ArtistError)) throw error;
        return undefined;
      });
      if (!picture || ended) continue;
      handle.renderer?.drawn.show('drag', picture);
      handle.renderer?.showStretch(picture);
    }
    asking = false;
  };
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
