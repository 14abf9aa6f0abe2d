import type { Mesh } from '../mesh/mesh.ts';
import { faceNormal } from '../mesh/normals.ts';

/** Where a projection stands in the model: three directions at right angles, right-handed. */
export interface Frame {
  readonly origin: readonly number[];
  /** Unit vectors: to the right, up, and towards the viewer; for a wrap, `up` is its axis and `toward` its middle. */
  readonly right: readonly number[];
  readonly up: readonly number[];
  readonly toward: readonly number[];
}

/**
 * @param toward  where the viewer is, any length; must not be zero
 * @param up  what should point up, as nearly as it can; another direction is taken when it lies along `toward`
 */
export function frameFacing(
  origin: readonly number[],
  toward: readonly number[],
  up: readonly number[] = [0, 1, 0],
): Frame {
  const w = unit(toward);
  let right = cross(up, w);
  // Seen from straight above or below, away from the viewer is up.
  if (!(length(right) > 1e-9 * length(up))) right = cross(Math.abs(w[1]) > 0.9 ? [0, 0, -1] : [0, 1, 0], w);
  const u = unit(right);
  return { origin, right: u, up: cross(w, u), toward: w };
}

/** A frame whose `up` is given exactly, as the axis of a wrap is. */
export function frameAbout(
  origin: readonly number[],
  axis: readonly number[],
  toward: readonly number[] = [0, 0, 1],
): Frame {
  const up = unit(axis);
  let right = cross(up, toward);
  if (!(length(right) > 1e-9 * length(toward)))
    right = cross(up, Math.abs(up[0]) > 0.9 ? [0, 1, 0] : [1, 0, 0]);
  const u = unit(right);
  return { origin, right: u, up, toward: cross(u, up) };
}

/** The plane that fits some faces best: it looks where they look on the whole, from their middle. */
export function bestFitFrame(mesh: Mesh, faces: ArrayLike<number>): Frame {
  const sum = [0, 0, 0];
  const origin = [0, 0, 0];
  let total = 0;
  for (let i = 0; i < faces.length; i++) {
    const vector = faceNormal(mesh, faces[i]);
    const area = length(vector);
    const [from, to] = [mesh.faceStart[faces[i]], mesh.faceStart[faces[i] + 1]];
    for (let k = 0; k < 3; k++) {
      sum[k] += vector[k];
      for (let c = from; c < to; c++) {
        origin[k] += (area * mesh.positions[3 * mesh.cornerVertex[c] + k]) / (to - from);
      }
    }
    total += area;
  }
  const middle = total > 0 ? origin.map((x) => x / total) : origin;
  // Faces that look all ways alike leave the front as good as any.
  return frameFacing(middle, length(sum) > 1e-9 * total ? sum : [0, 0, 1]);
}

/** Coordinates of points in a frame: to the right, up and toward of each. */
export function inFrame({ origin, right, up, toward }: Frame, positions: Float64Array): Float64Array {
  const at = new Float64Array(positions.length);
  for (let i = 0; i < at.length; i += 3) {
    const x = positions[i] - origin[0];
    const y = positions[i + 1] - origin[1];
    const z = positions[i + 2] - origin[2];
    at[i] = right[0] * x + right[1] * y + right[2] * z;
    at[i + 1] = up[0] * x + up[1] * y + up[2] * z;
    at[i + 2] = toward[0] * x + toward[1] * y + toward[2] * z;
  }
  return at;
}

const length = (a: readonly number[]): number => Math.hypot(a[0], a[1], a[2]);

const unit = (a: readonly number[]): number[] => a.map((x) => x / length(a));

const cross = (a: readonly number[], b: readonly number[]): number[] => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];
