import { IconLassoPolygon } from '@tabler/icons-react';
import { afterPick } from '../../store/acts.ts';
import { useBench } from '../../store/bench.ts';
import { select } from '../../store/select.ts';
import { clipOf } from '../panes/places.ts';
import { byClick } from './picking.ts';
import { inView, rubberBand } from './rubberBand.ts';
import type { Grip, Place, Tool } from './tool.ts';

/** Corners of an outline lie at least so far apart, pixels. */
const APART = 4;

/** Picks all that lies in an outline drawn on the Model; on the Board in a rectangle. */
export const lasso: Tool = {
  ...byClick,
  double: undefined,
  name: 'lasso',
  label: 'Pick by outline',
  help: 'Pick what lies in an outline drawn by hand',
  key: 'l',
  icon: IconLassoPolygon,
  panes: ['model', 'board'],
  press: (at) => (at.pane === 'model' ? outline(at) : rubberBand(at)),
};

function outline(start: Place): Grip {
  let corners = [start.x, start.y];
  const clear = () => useBench.setState({ lasso: undefined });
  const add = ({ x, y }: Place): void => {
    const [lastX, lastY] = corners.slice(-2);
    if (Math.hypot(x - lastX, y - lastY) < APART) return;
    corners = [...corners, x, y];
    useBench.setState({ lasso: corners });
  };
  return {
    move: add,
    drop(to) {
      add(to);
      clear();
      afterPick(selectWithin(corners, start));
    },
    cancel: clear,
  };
}

async function selectWithin(corners: readonly number[], { how }: Place): Promise<void> {
  const clip: number[] = [];
  for (let i = 0; i < corners.length; i += 2)
    clip.push(...clipOf({ x: corners[i], y: corners[i + 1] }).toArray());
  const [xs, ys] = [0, 1].map((k) => clip.filter((_, i) => i % 2 === k));
  const found = await inView([Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)], clip);
  if (found) select(useBench.getState().target, found, how);
}
