import { ghost } from './ghost.ts';
import { groundShadow } from './groundShadow.ts';
import type { Layer } from './layer.ts';
import {
  boardChosen,
  boardHover,
  boardRim,
  boardWhole,
  modelChosen,
  modelHover,
  modelRim,
  modelWhole,
  shiningThrough,
} from './marks.ts';
import { overlapDots } from './overlaps.ts';
import { boardBorders, modelSeams } from './seams.ts';
import { boardSurface, modelSurface } from './surface.ts';
import { tile } from './tile.ts';
import { boardWires, modelWires } from './wires.ts';

/** Everything that is drawn, from the bottom up. */
export const LAYERS: readonly Layer[] = [
  groundShadow,
  modelSurface,
  modelWires,
  modelSeams,
  modelRim,
  modelWhole,
  modelHover,
  modelChosen,
  shiningThrough,
  tile,
  boardSurface,
  boardWires,
  boardBorders,
  overlapDots,
  boardRim,
  boardWhole,
  boardHover,
  boardChosen,
  ghost,
];
