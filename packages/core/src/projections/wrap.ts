import type { Mesh } from '../mesh/mesh.ts';
import { type Frame, inFrame } from './frame.ts';

/** Corners of a wrap round an axis, and what it could not take. */
export interface Wrapped {
  /** UV of every corner of the mesh in model units, `2 × cornerCount`, NaN where unmapped. */
  readonly uv: Float64Array;
  /** Faces whose middle lies beyond the sweep: left unmapped. */
  readonly outside: number[];
}

/** Angle round the frame's `up` from its `toward`, to the right, −π to π; NaN on the axis. */
export function longitude(right: number, toward: number): number {
  return right === 0 && toward === 0 ? NaN : Math.atan2(right, toward);
}

/**
 * Wraps faces round a frame's axis. The wrap is opened opposite to `toward`; a face there is kept in one piece by
 * taking each corner's angle on the side of the face's middle, so that it reaches past the end of the wrap
 * instead of smearing back across it. A corner on the axis takes the angle of the middle.
 *
 * @param sweep  radians covered, up to 2π, half to either side of `toward`
 * @param place  UV from the unrolled angle and the corner's coordinates in the frame
 */
export function wrapFaces(
  mesh: Mesh,
  faces: ArrayLike<number>,
  frame: Frame,
  sweep: number,
  place: (angle: number, right: number, up: number, toward: number) => readonly [number, number],
): Wrapped {
  const uv = new Float64Array(2 * mesh.cornerVertex.length).fill(NaN);
  const outside: number[] = [];
  for (let i = 0; i < faces.length; i++) {
    const f = faces[i];
    const corners = Array.from({ length: mesh.faceStart[f + 1] - mesh.faceStart[f] }, (_, k) =>
      inFrame(frame, mesh.positions, mesh.cornerVertex[mesh.faceStart[f] + k]),
    );
    const sum = corners.reduce((a, b) => a.map((x, k) => x + b[k]));
    const middle = longitude(sum[0], sum[2]) || 0;
    if (Math.abs(middle) > 0.5 * sweep + 1e-9) {
      outside.push(f);
      continue;
    }
    corners.forEach(([right, up, toward], k) => {
      const c = mesh.faceStart[f] + k;
      const own = longitude(right, toward);
      const angle = Number.isNaN(own)
        ? middle
        : own - 2 * Math.PI * Math.round((own - middle) / (2 * Math.PI));
      [uv[2 * c], uv[2 * c + 1]] = place(angle, right, up, toward);
    });
  }
  return { uv, outside };
}
