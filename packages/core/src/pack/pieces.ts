import { type DistanceField, distanceField } from './distanceField.ts';
import { type Chain, segmentsOf } from './outline.ts';
import type { Shape } from './shape.ts';
import { simplifyChain } from './simplifyChain.ts';

/** A shape and how far from it any point lies. */
export interface FieldShape extends Shape {
  readonly field: DistanceField;
}

/** A shape as the search feels it. */
export interface Piece extends FieldShape {
  /** Points at which what the piece lies on is felt: u, v and how much of the border (or of the inside) it stands for, `3 × count`. */
  readonly feelers: Float64Array;
  /** Runs of `RUN` feelers: middle and radius, `3 × runCount`. */
  readonly runs: Float64Array;
}

/** How finely a piece is felt, in its own unit. */
export interface Fineness {
  /** Between the nodes of the distance field. */
  readonly cell: number;
  /** The greatest distance from others that matters. */
  readonly reach: number;
  /** Between feelers. */
  readonly spacing: number;
}

/** Feelers that are passed over together. */
export const RUN = 8;
/** Deepest points inside by which a piece feels that it lies on another of its kind. */
const POLES = 8;

/** Beyond the reach lie the nodes between which the last of it is read, and those of a cell that only touches it. */
export const withField = (shape: Shape, { cell, reach }: Omit<Fineness, 'spacing'>): FieldShape => ({
  ...shape,
  field: distanceField(shape.mesh, shape.segments, cell, reach + 3 * cell),
});

export function pieceOf(shape: Shape, fineness: Fineness): Piece {
  const { field } = withField(shape, fineness);
  const along = feelersAlong(shape.chains, fineness.cell / 8, fineness.spacing);
  const feelers = [...along, ...polesOf(field)];
  return { ...shape, field, feelers: Float64Array.from(feelers.flat()), runs: runsOf(feelers) };
}

type Feeler = readonly [u: number, v: number, weight: number];

/** Corners of the outline, and points between them where they are far apart. */
function feelersAlong(chains: readonly Chain[], tolerance: number, spacing: number): Feeler[] {
  const feelers: Feeler[] = [];
  for (const chain of chains) {
    const ends = segmentsOf([simplifyChain(chain, tolerance)]);
    for (let i = 0; i < ends.length; i += 4) {
      const length = Math.hypot(ends[i + 2] - ends[i], ends[i + 3] - ends[i + 1]);
      const parts = Math.max(1, Math.ceil(length / spacing));
      for (let k = 0; k < parts; k++) {
        const t = k / parts;
        feelers.push([
          ends[i] + t * (ends[i + 2] - ends[i]),
          ends[i + 1] + t * (ends[i + 3] - ends[i + 1]),
          length / parts,
        ]);
      }
    }
  }
  return feelers;
}

/** The deepest points, each outside the circles that fit round those before it. */
function polesOf({ columns, rows, left, low, cell, distance }: DistanceField): Feeler[] {
  const poles: Feeler[] = [];
  while (poles.length < POLES) {
    let [deepest, at] = [0, -1];
    for (let r = 0; r < rows; r++)
      for (let c = 0; c < columns; c++) {
        const depth = -distance[r * columns + c];
        if (depth <= deepest) continue;
        const [u, v] = [left + c * cell, low + r * cell];
        if (poles.some(([pu, pv, radius]) => (u - pu) ** 2 + (v - pv) ** 2 < radius ** 2)) continue;
        [deepest, at] = [depth, r * columns + c];
      }
    if (at < 0 || (poles.length > 0 && deepest < 0.3 * poles[0][2])) break;
    poles.push([left + (at % columns) * cell, low + Math.floor(at / columns) * cell, deepest]);
  }
  return poles;
}

function runsOf(feelers: readonly Feeler[]): Float64Array {
  const runs: number[] = [];
  for (let i = 0; i < feelers.length; i += RUN) {
    const some = feelers.slice(i, i + RUN);
    const u = some.reduce((sum, f) => sum + f[0], 0) / some.length;
    const v = some.reduce((sum, f) => sum + f[1], 0) / some.length;
    runs.push(u, v, Math.max(...some.map((f) => Math.hypot(f[0] - u, f[1] - v))));
  }
  return Float64Array.from(runs);
}
