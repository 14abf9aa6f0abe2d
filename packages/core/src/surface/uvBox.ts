/** Least and greatest u and v: `[minU, minV, maxU, maxV]`. */
export type UvBox = readonly [number, number, number, number];

/** The box of points in the flat, `2 × n`. */
export function boxOf(uv: Float64Array): UvBox {
  let [minU, minV, maxU, maxV] = [Infinity, Infinity, -Infinity, -Infinity];
  for (let i = 0; i < uv.length; i += 2) {
    minU = Math.min(minU, uv[i]);
    minV = Math.min(minV, uv[i + 1]);
    maxU = Math.max(maxU, uv[i]);
    maxV = Math.max(maxV, uv[i + 1]);
  }
  return [minU, minV, maxU, maxV];
}

/** Whether two boxes have more than their rims in common. */
export const boxesMeet = (a: UvBox, b: UvBox): boolean =>
  a[0] < b[2] && a[2] > b[0] && a[1] < b[3] && a[3] > b[1];
