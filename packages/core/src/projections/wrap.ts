import type { Mesh } from '../mesh/mesh.ts';
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
 * Wraps faces round the axis of a frame. The wrap is opened opposite to `toward`; a face there is kept in one piece by
 * taking each corner's angle on the side of the face's middle, so that it reaches past the end of the wrap
 * instead of smearing back across it. A corner on the axis takes the angle of the middle.
 *
 * @param at  every vertex in the frame, as of `inFrame`
 * @param sweep  radians covered, up to 2π, half to either side of `toward`
 * @param across  u per radian of the unrolled angle, model units
 * @param rise  v from the coordinates of a vertex in the frame
 */
export function wrapFaces(
  { faceStart, cornerVertex }: Mesh,
  faces: ArrayLike<number>,
  at: Float64Array,
  sweep: number,
  across: number,
  rise: (right: number, up: number, toward: number) => number,
): Wrapped {
  const uv = new Float64Array(2 * cornerVertex.length).fill(NaN);
  const outside: number[] = [];
  for (let i = 0; i < faces.length; i++) {
    const f = faces[i];
    const [first, end] = [faceStart[f], faceStart[f + 1]];
    let [right, toward] = [0, 0];
    for (let c = first; c < end; c++) {
      right += at[3 * cornerVertex[c]];
      toward += at[3 * cornerVertex[c] + 2];
    }
    const middle = longitude(right, toward) || 0;
    if (Math.abs(middle) > 0.5 * sweep + 1e-9) {
      outside.push(f);
      continue;
    }
    for (let c = first; c < end; c++) {
      const v = 3 * cornerVertex[c];
      const own = longitude(at[v], at[v + 2]);
      const angle = Number.isNaN(own)
        ? middle
        : own - 2 * Math.PI * Math.round((own - middle) / (2 * Math.PI));
      uv[2 * c] = across * angle;
      uv[2 * c + 1] = rise(at[v], at[v + 1], at[v + 2]);
    }
  }
  return { uv, outside };
}
