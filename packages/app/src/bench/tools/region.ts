import { IconSquareDashed } from '@tabler/icons-react';
import { useBench } from '../../store/bench.ts';
import { uvOf } from '../panes/places.ts';
import { byClick } from './picking.ts';
import type { Grip, Place, Tool } from './tool.ts';

/** Draws the region of a tile that is packed; a click picks as ever. */
export const region: Tool = {
  ...byClick,
  double: undefined,
  name: 'region',
  label: 'Draw a region',
  help: 'Draw the region of a tile that packing fills',
  key: 'i',
  icon: IconSquareDashed,
  panes: ['board'],
  press: rectangle,
};

function rectangle(start: Place): Grip {
  const before = useBench.getState().packRegion;
  const [u0, v0] = uvOf(start.x, start.y);
  const drawTo = ({ x, y }: Place): void => {
    const [u1, v1] = uvOf(x, y);
    useBench.setState({
      packRegion: [Math.min(u0, u1), Math.min(v0, v1), Math.max(u0, u1), Math.max(v0, v1)],
    });
  };
  return {
    move: drawTo,
    drop: drawTo,
    cancel: () => useBench.setState({ packRegion: before }),
  };
}
