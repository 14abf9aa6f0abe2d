import { IconBrush } from '@tabler/icons-react';
import { Select, Slider } from 'antd';
import { afterPick, perform } from '../../store/acts.ts';
import { type BenchStore, useBench } from '../../store/bench.ts';
import { select } from '../../store/select.ts';
import { ask } from '../../store/worker.ts';
import { handle } from '../panes/rendererHandle.ts';
import { byClick } from './picking.ts';
import type { Grip, Place, Tool } from './tool.ts';

/** Picks faces, or edges, under a brush that is drawn over the Model; beside the model it turns the view. */
export const paint: Tool = {
  ...byClick,
  double: undefined,
  name: 'paint',
  label: 'Pick by brush',
  help: 'Pick faces or edges by painting over them, or paint a patch',
  key: 't',
  icon: IconBrush,
  panes: ['model'],
  async press(at) {
    const { target, paints } = useBench.getState();
    if (target === 'shells' || paints !== 'picks') useBench.setState({ target: 'faces' });
    return (await at.pick()) ? stroke(at) : undefined;
  },
  Settings() {
    const brush = useBench((s) => s.brush);
    const { names } = useBench((s) => s.patches);
    const paints = useBench((s) => s.paints);
    return (
      <>
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
        {names.some(Boolean) && (
          <Select<BenchStore['paints']>
            size="small"
            className="wide"
            aria-label="What the brush does"
            value={paints}
            options={[
              { value: 'picks', label: 'Picks' },
              { value: 'new', label: 'Paints a new patch' },
              ...names.flatMap((name, i) => (name ? [{ value: i + 1, label: `Paints ${name}` }] : [])),
            ]}
            onChange={(value) => useBench.setState({ paints: value })}
          />
        )}
      </>
    );
  },
};

/** Puts what was painted where it belongs. */
async function intoPatch(patch: number | 'new' | 'none'): Promise<void> {
  const { faces: painted, patches } = useBench.getState();
  const faces = [...painted];
  select('faces', [], 'only');
  if (faces.length === 0 || !(await perform('paint-patch', { faces, patch }))) return;
  // The next stroke goes on with the patch that this one began: it took the first number that was free.
  const free = patches.names.indexOf('');
  if (patch === 'new') useBench.setState({ paints: 1 + (free < 0 ? patches.names.length : free) });
}

/** One dab at a time; places that came meanwhile are taken up next. */
function stroke(start: Place): Grip {
  const waiting: Place[] = [start];
  let working: Promise<void> | undefined;
  let ended = false;
  const { paints, target } = useBench.getState();
  const away = start.how === 'remove';
  if (start.how === 'only' || paints !== 'picks') select(target, [], 'only');
  const work = async (): Promise<void> => {
    // What is taken out of a patch is shown as picked until the hand lets go.
    for (let at = waiting.shift(); at && !ended; at = waiting.shift())
      await dab(at, away && paints === 'picks');
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
      const picked = working ?? Promise.resolve();
      afterPick(paints !== 'picks' ? picked.then(() => intoPatch(away ? 'none' : paints)) : picked);
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
  if (!found?.place) return;
  const radius = Math.max(1e-9, brush * renderer.model.perPixelAt(found.place) * (0.5 + at.pressure));
  const covered = await ask('in-ball', { target, face: found.face, at: found.place, radius });
  if (covered) select(target, covered, away ? 'remove' : 'add');
}
