import { boardEllipses, modelEllipses } from './ellipses.ts';
import { ghost } from './ghost.ts';
import { groundShadow } from './groundShadow.ts';
import { guides } from './guides.ts';
import { boardHolds, modelHolds } from './holds.ts';
import type { Layer } from './layer.ts';
import {
  boardChosen,
  boardHover,
  boardPoints,
  boardProposal,
  boardRim,
  boardRoute,
  boardWhole,
  modelChosen,
  modelHover,
  modelLonely,
  modelPoints,
  modelProposal,
  modelRim,
  modelRoute,
  modelWhole,
  shiningThrough,
} from './marks.ts';
import { overlapDots } from './overlaps.ts';
import { boardPointedOut, modelPointedOut } from './pointedOut.ts';
import { projectionFrame } from './projection.ts';
import { region } from './region.ts';
import { routePoints } from './routePoints.ts';
import { boardBorders, modelSeams } from './seams.ts';
import { boardSurface, modelSurface } from './surface.ts';
import { tile } from './tile.ts';
import { boardWires, modelWires } from './wires.ts';

/** Everything that is drawn, from the bottom up. */
export const LAYERS: readonly Layer[] = [
  groundShadow,
  modelSurface,
  modelWires,
  modelEllipses,
  modelSeams,
  modelRim,
  modelLonely,
  modelProposal,
  modelHolds,
  modelRoute,
  routePoints,
  projectionFrame,
  modelWhole,
  modelHover,
  modelChosen,
  shiningThrough,
  modelPointedOut,
  modelPoints,
  tile,
  boardSurface,
  boardWires,
  boardEllipses,
  boardBorders,
  overlapDots,
  boardHolds,
  boardRim,
  boardProposal,
  boardRoute,
  boardWhole,
  boardHover,
  boardChosen,
  boardPointedOut,
  boardPoints,
  ghost,
  region,
  guides,
];
