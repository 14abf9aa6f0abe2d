import type { UvBox } from '../surface/uvBox.ts';

/** Some rows of a texture that lies on a box of the flat; row 0 is the highest. */
export interface TexelRows {
  readonly frame: UvBox;
  readonly width: number;
  readonly height: number;
  readonly from: number;
  /** Past the last. */
  readonly to: number;
}

/** u and v of the middle of a texel. */
export const middleOfTexel = (
  { frame: [left, low, right, high], width, height }: TexelRows,
  x: number,
  y: number,
): readonly [u: number, v: number] => [
  left + ((x + 0.5) / width) * (right - left),
  high - ((y + 0.5) / height) * (high - low),
];

/** Stands for a texel whose middle no triangle covers. */
export const NO_TRIANGLE = -1;

/**
 * The triangle that covers the middle of each texel; where several do, the last of them.
 *
 * @param uv  u and v of the corners of every triangle, `6 × triangleCount`; triangles without UVs (NaN) cover nothing
 * @returns row by row, `width × (to − from)`
 */
export function trianglesAtTexels(uv: ArrayLike<number>, rows: TexelRows): Int32Array {
  const { frame, width, height, from, to } = rows;
  const [left, low, right, high] = frame;
  const found = new Int32Array(width * (to - from)).fill(NO_TRIANGLE);
  const xOf = (u: number) => ((u - left) / (right - left)) * width - 0.5;
  const yOf = (v: number) => ((high - v) / (high - low)) * height - 0.5;
  for (let t = 0; 6 * t < uv.length; t++) {
    const [ax, bx, cx] = [xOf(uv[6 * t]), xOf(uv[6 * t + 2]), xOf(uv[6 * t + 4])];
    const [ay, by, cy] = [yOf(uv[6 * t + 1]), yOf(uv[6 * t + 3]), yOf(uv[6 * t + 5])];
    const y0 = Math.max(from, Math.ceil(Math.min(ay, by, cy)));
    const y1 = Math.min(to - 1, Math.floor(Math.max(ay, by, cy)));
    const x0 = Math.max(0, Math.ceil(Math.min(ax, bx, cx)));
    const x1 = Math.min(width - 1, Math.floor(Math.max(ax, bx, cx)));
    const area = (bx - ax) * (cy - ay) - (cx - ax) * (by - ay);
    if (!(area !== 0)) continue;
    for (let y = y0; y <= y1; y++)
      for (let x = x0; x <= x1; x++) {
        const b = ((x - ax) * (cy - ay) - (cx - ax) * (y - ay)) / area;
        const c = ((bx - ax) * (y - ay) - (x - ax) * (by - ay)) / area;
        if (b >= 0 && c >= 0 && b + c <= 1) found[(y - from) * width + x] = t;
      }
  }
  return found;
}

/** Barycentric coordinates of a place of the flat in a triangle: the weights of its corners. */
export function weightsAt(
  uv: ArrayLike<number>,
  triangle: number,
  u: number,
  v: number,
): readonly [number, number, number] {
  const i = 6 * triangle;
  const [au, av] = [uv[i], uv[i + 1]];
  const [bu, bv] = [uv[i + 2] - au, uv[i + 3] - av];
  const [cu, cv] = [uv[i + 4] - au, uv[i + 5] - av];
  const area = bu * cv - cu * bv;
  const b = ((u - au) * cv - cu * (v - av)) / area;
  const c = (bu * (v - av) - (u - au) * bv) / area;
  return [1 - b - c, b, c];
}
