import { IconBrush } from '@tabler/icons-react';
import { Slider } from 'antd';
import { afterPick } from '../../store/acts.ts';
import { useBench } from '../../store/bench.ts';
import { select } from '../../store/select.ts';
import { ask } from '../../store/worker.ts';
import { handle } from '../panes/rendererHandle.ts';
import { byClick } from './picking.ts';
import type { Grip, Place, Tool } from './tool.ts';

/** Picks faces, or edges, under a brush that is drawn over the Model; beside the model it turns the view. */
export const paint: Tool = {
  ...byClick,
  name: 'paint',
  label: 'Pick by brush',
  help: 'Pick faces or edges by painting over them; its border can be cut',
  key: 't',
  icon: IconBrush,
  panes: ['model'],
  async press(at) {
    if (useBench.getState().target === 'shells') useBench.setState({ target: 'faces' });
    return (await at.pick()) ? stroke(at) : undefined;
  },
  Settings() {
    const brush = useBench((s) => s.brush);
    return (
      <div className="rail-field">
        Radius, px
        <Slider
          min={4}
          max={120}
          value={brush}
          onChange={(value) => useBench.setState({ brush: value })}
          ariaLabelForHandle="Radius of the brush"
        />
      </div>
    );
  },
};

/** One dab at a time; places that came meanwhile are taken up next. */
function stroke(start: Place): Grip {
  const waiting: Place[] = [start];
  let working: Promise<void> | undefined;
  let ended = false;
  if (start.how === 'only') select(useBench.getState().target, [], 'only');
  const work = async (): Promise<void> => {
    for (let at = waiting.shift(); at && !ended; at = waiting.shift()) await dab(at, start.how === 'remove');
    working = undefined;
  };
  const add = (at: Place): void => {
    waiting.push(at);
    working ??= work();
  };
  working = work();
  return {
    move: add,
    drop(to) {
      add(to);
      afterPick(working ?? Promise.resolve());
    },
    cancel() {
      ended = true;
    },
  };
}

async function dab(at: Place, away: boolean): Promise<void> {
  const { target, brush } = useBench.getState();
  const { renderer } = handle;
  if (!renderer || target === 'shells') return;
  const found = await at.pick();
  if (!found?.point) return;
  const radius = Math.max(1e-9, brush * renderer.perPixelAt(found.point) * (0.5 + at.pressure));
  const covered = await ask('in-ball', { target, face: found.face, at: found.point, radius });
  if (covered) select(target, covered, away ? 'remove' : 'add');
}
