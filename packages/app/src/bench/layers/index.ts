import { ghost } from './ghost.ts';
import type { Layer } from './layer.ts';
import { boardChosen, boardHover, modelChosen, modelHover, shiningThrough } from './marks.ts';
import { overlapDots } from './overlaps.ts';
import { boardBorders, modelSeams } from './seams.ts';
import { boardSurface, modelSurface } from './surface.ts';
import { tile } from './tile.ts';
import { boardWires, modelWires } from './wires.ts';

/** Everything that is drawn, from the bottom up. */
export const LAYERS: readonly Layer[] = [
  modelSurface,
  modelWires,
  modelSeams,
  modelHover,
  modelChosen,
  shiningThrough,
  tile,
  boardSurface,
  boardWires,
  boardBorders,
  overlapDots,
  boardHover,
  boardChosen,
  ghost,
];
