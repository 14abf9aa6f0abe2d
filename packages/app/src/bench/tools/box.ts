import { IconBorderCorners } from '@tabler/icons-react';
import { byClick } from './picking.ts';
import { rubberBand } from './rubberBand.ts';
import type { Tool } from './tool.ts';

/** Picks all that lies in a rectangle of either pane; a click picks as ever. */
export const box: Tool = {
  ...byClick,
  double: undefined,
  name: 'box',
  label: 'Pick with a box',
  help: 'Pick with a box',
  key: 'z',
  icon: IconBorderCorners,
  panes: ['model', 'board'],
  press: rubberBand,
};
