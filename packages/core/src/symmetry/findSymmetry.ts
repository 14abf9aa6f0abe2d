import type { Connectivity } from '../mesh/connectivity.ts';
import { boundingBox, type Mesh } from '../mesh/mesh.ts';
import { pointGrid } from '../mesh/pointGrid.ts';
import { meanEdge } from './counterparts.ts';
import { type Isometry, imageOf, mirrorIn, turnAbout } from './isometry.ts';

/** A plane in which, or an axis about which, a figure is symmetric. */
export interface Symmetry {
  readonly kind: 'mirror' | 'turn';
  /** Of the plane, or along the axis; of length 1. */
  readonly direction: readonly [number, number, number];
  /** A point of it. */
  readonly through: readonly [number, number, number];
  /** How many turns come round; 2 for a mirror. */
  readonly fold: number;
}

/** The plane across an axis through the origin. */
export const acrossAxis = (axis: 'x' | 'y' | 'z'): Symmetry => ({
  kind: 'mirror',
  direction: AXES['xyz'.indexOf(axis)],
  through: [0, 0, 0],
  fold: 2,
});

/** What takes a figure to its next counterpart. */
export const isometryOf = ({ kind, direction, through, fold }: Symmetry): Isometry =>
  kind === 'mirror'
    ? mirrorIn(direction, dot(direction, through))
    : turnAbout(direction, through, (2 * Math.PI) / fold);

const dot = (a: readonly number[], b: readonly number[]): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];

/** Points that are tried. */
const SAMPLES = 1200;
/** A point falls on the figure when one of its vertices is nearer than this part of the length of edges. */
const NEAR = 0.75;
/** A figure is symmetric when so many of the points tried fall on it. */
const MIRRORED = 0.8;
const TURNED = 0.9;
/** Set by hand, half of it may be of another form. */
const BY_HAND = 0.5;
const MOST_FOLDS = 12;
/** Part of the points that must move, for a symmetry to mean anything. */
const ENOUGH = 0.3;

const AXES = [
  [1, 0, 0],
  [0, 1, 0],
  [0, 0, 1],
] as const;

/**
 * The plane a figure is mirrored in, along an axis of its file, through the origin, the middle of its box or its mean point: what falls
 * on it best.
 *
 * @param directions  normals that are tried
 * @returns undefined where none does
 */
export function findMirror(
  mesh: Mesh,
  connectivity: Connectivity,
  directions: readonly (readonly [number, number, number])[] = AXES,
): Symmetry | undefined {
  const points = middles(mesh);
  const candidates = directions.flatMap((direction) =>
    points.map((through): Symmetry => ({ kind: 'mirror', direction, through, fold: 2 })),
  );
  return best(mesh, connectivity, candidates, MIRRORED);
}

/** The axis about which a figure comes round after a part of a turn, along an axis of its file; the most folds win. */
export function findTurn(mesh: Mesh, connectivity: Connectivity): Symmetry | undefined {
  const points = middles(mesh);
  const candidates: Symmetry[] = [];
  for (let fold = MOST_FOLDS; fold >= 3; fold--)
    for (const direction of AXES)
      for (const through of points) candidates.push({ kind: 'turn', direction, through, fold });
  return best(mesh, connectivity, candidates, TURNED);
}

function middles({ positions }: Mesh): [number, number, number][] {
  const box = boundingBox(positions);
  const count = positions.length / 3;
  const mean = [0, 0, 0];
  for (let i = 0; i < positions.length; i++) mean[i % 3] += positions[i] / count;
  return [[0, 0, 0], [0, 1, 2].map((k) => (box[k] + box[k + 3]) / 2), mean] as [number, number, number][];
}

/** Whether the surface is as symmetric as a plane or an axis that was set by hand needs it to be. */
export function fallsOn(mesh: Mesh, connectivity: Connectivity, symmetry: Symmetry): boolean {
  const { score, moved } = scoring(mesh, connectivity)(symmetry);
  return moved === 0 || score > BY_HAND;
}

function best(
  mesh: Mesh,
  connectivity: Connectivity,
  candidates: readonly Symmetry[],
  least: number,
): Symmetry | undefined {
  const scoreOf = scoring(mesh, connectivity);
  let found: Symmetry | undefined;
  let most = least;
  for (const candidate of candidates) {
    const { score, moved } = scoreOf(candidate);
    if (moved > ENOUGH && score > most + 1e-9) {
      found = candidate;
      most = score;
    }
  }
  return found;
}

/** How well a figure falls on itself, from 0 to 1, and which part of it moves at all. */
function scoring(mesh: Mesh, connectivity: Connectivity) {
  const { positions } = mesh;
  const count = positions.length / 3;
  const reach = NEAR * meanEdge(mesh, connectivity) || 1;
  const grid = pointGrid(positions, Array(count).keys(), reach);
  const stride = Math.max(1, Math.floor(count / SAMPLES));
  return (candidate: Symmetry): { readonly score: number; readonly moved: number } => {
    const isometry = isometryOf(candidate);
    let score = 0;
    let moved = 0;
    let tried = 0;
    for (let v = 0; v < count; v += stride) {
      tried++;
      const [x, y, z] = imageOf(isometry, positions, v);
      // What stays where it is says nothing: a flat sheet is mirrored in its own plane.
      if (Math.hypot(positions[3 * v] - x, positions[3 * v + 1] - y, positions[3 * v + 2] - z) < 2 * reach)
        continue;
      moved++;
      let nearest = reach;
      grid.near(x, y, z, (w) => {
        nearest = Math.min(
          nearest,
          Math.hypot(positions[3 * w] - x, positions[3 * w + 1] - y, positions[3 * w + 2] - z),
        );
      });
      // The nearer it falls the better, so that of two planes side by side the true one is taken.
      score += nearest < reach ? 1 - 0.2 * (nearest / reach) : 0;
    }
    return { score: moved > 0 ? score / moved : 0, moved: tried > 0 ? moved / tried : 0 };
  };
}
