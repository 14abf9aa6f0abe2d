import { IconSelect } from '@tabler/icons-react';
import { hoverPicker, pickAt, pickWhole } from './picking.ts';
import { rubberBand } from './rubberBand.ts';
import type { Tool } from './tool.ts';

const hovering = hoverPicker();

/** Picks all that lies in a rectangle of the Model; a click picks as ever. */
export const box: Tool = {
  name: 'box',
  label: 'Pick with a box',
  help: 'Pick with a box',
  key: 'z',
  icon: IconSelect,
  panes: ['model', 'board'],
  hover: (at) => void hovering.at(at),
  leave: hovering.leave,
  click: pickAt,
  double: pickWhole,
  press: (at) => (at.pane === 'model' ? rubberBand(at) : undefined),
};
