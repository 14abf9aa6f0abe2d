import { type DistanceField, distanceField } from './distanceField.ts';
import { type Chain, segmentsOf } from './outline.ts';
import type { Shape } from './shape.ts';
import { simplifyChain } from './simplifyChain.ts';

/** A shape with its distance field. */
export interface FieldShape extends Shape {
  readonly field: DistanceField;
}

/** A shape with the points at which its overlap with others is sampled. */
export interface Piece extends FieldShape {
  /** Sample points along the border and a few inside: u, v and the length each stands for, `3 × count`. */
  readonly samples: Float64Array;
  /** A circle round each `GROUP` samples in order: middle and radius, `3 × groupCount`. */
  readonly groups: Float64Array;
}

/** How finely a piece is sampled, in its own unit. */
export interface Fineness {
  /** Between the nodes of the distance field. */
  readonly cell: number;
  /** The greatest distance from others that matters. */
  readonly reach: number;
  /** Between samples. */
  readonly spacing: number;
}

/** Samples that are ruled out together. */
export const GROUP = 8;
/** Samples inside, by which two alike pieces at one place are seen to overlap. */
const POLES = 8;

/** Beyond the reach lie the nodes between which the last of it is read, and those of a cell that only touches it. */
export const withField = (shape: Shape, { cell, reach }: Omit<Fineness, 'spacing'>): FieldShape => ({
  ...shape,
  field: distanceField(shape.mesh, shape.segments, cell, reach + 3 * cell),
});

export function pieceOf(shape: Shape, fineness: Fineness): Piece {
  const { field } = withField(shape, fineness);
  const along = samplesAlong(shape.chains, fineness.cell / 8, fineness.spacing);
  const samples = [...along, ...polesOf(field)];
  return { ...shape, field, samples: Float64Array.from(samples.flat()), groups: groupsOf(samples) };
}

type Sample = readonly [u: number, v: number, weight: number];

/** Corners of the outline, and points between them where they are far apart. */
function samplesAlong(chains: readonly Chain[], tolerance: number, spacing: number): Sample[] {
  const samples: Sample[] = [];
  for (const chain of chains) {
    const ends = segmentsOf([simplifyChain(chain, tolerance)]);
    for (let i = 0; i < ends.length; i += 4) {
      const length = Math.hypot(ends[i + 2] - ends[i], ends[i + 3] - ends[i + 1]);
      const parts = Math.max(1, Math.ceil(length / spacing));
      for (let k = 0; k < parts; k++) {
        const t = k / parts;
        samples.push([
          ends[i] + t * (ends[i + 2] - ends[i]),
          ends[i + 1] + t * (ends[i + 3] - ends[i + 1]),
          length / parts,
        ]);
      }
    }
  }
  return samples;
}

/** The deepest points, each outside the circles that fit round those before it. */
function polesOf({ columns, rows, left, low, cell, distance }: DistanceField): Sample[] {
  const poles: Sample[] = [];
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

function groupsOf(samples: readonly Sample[]): Float64Array {
  const groups: number[] = [];
  for (let i = 0; i < samples.length; i += GROUP) {
    const some = samples.slice(i, i + GROUP);
    const u = some.reduce((sum, f) => sum + f[0], 0) / some.length;
    const v = some.reduce((sum, f) => sum + f[1], 0) / some.length;
    groups.push(u, v, Math.max(...some.map((f) => Math.hypot(f[0] - u, f[1] - v))));
  }
  return Float64Array.from(groups);
}
