/**
 * Mean curvature at the vertices of a triangle mesh, 1 / length, greater than 0 where it bulges: half the length of the cotangent Laplacian of the
 * positions, over a third of the area round a vertex (Meyer, Desbrun, Schröder, Barr 2003). Vertices at a border take the mean of
 * their neighbours inside; 0 where there are none.
 *
 * @param positions  `3 × vertexCount`
 * @param triangles  vertices of each, `3 × triangleCount`
 * @returns `vertexCount`
 */
export function meanCurvature(positions: ArrayLike<number>, triangles: ArrayLike<number>): Float64Array {
  const count = positions.length / 3;
  const bend = new Float64Array(3 * count);
  const normal = new Float64Array(3 * count);
  const area = new Float64Array(count);
  /** How often each directed edge that leaves a vertex comes back: at a border it does not. */
  const open = new Map<number, number>();
  for (let t = 0; t < triangles.length; t += 3) {
    const at = [triangles[t], triangles[t + 1], triangles[t + 2]];
    const sides = at.map((_, k) => minus(positions, at[(k + 2) % 3], at[(k + 1) % 3]));
    const cross = crossed(minus(positions, at[1], at[0]), minus(positions, at[2], at[0]));
    const double = Math.hypot(...cross);
    for (let k = 0; k < 3; k++) {
      const [i, j] = [at[(k + 1) % 3], at[(k + 2) % 3]];
      const key = Math.min(i, j) * count + Math.max(i, j);
      open.set(key, (open.get(key) ?? 0) + 1);
      area[at[k]] += double / 6;
      for (let d = 0; d < 3; d++) normal[3 * at[k] + d] += cross[d];
      if (!(double > 0)) continue;
      // The cotangent of the angle at corner k weighs the side across from it.
      const [p, q] = [sides[(k + 1) % 3], sides[(k + 2) % 3]];
      const cotangent = -(p[0] * q[0] + p[1] * q[1] + p[2] * q[2]) / double;
      for (let d = 0; d < 3; d++) {
        const way = positions[3 * i + d] - positions[3 * j + d];
        bend[3 * i + d] += cotangent * way;
        bend[3 * j + d] -= cotangent * way;
      }
    }
  }
  const isBorder = new Uint8Array(count);
  for (const [key, times] of open)
    if (times !== 2) for (const v of [Math.floor(key / count), key % count]) isBorder[v] = 1;
  const curvature = new Float64Array(count);
  for (let v = 0; v < count; v++) {
    const long = Math.hypot(normal[3 * v], normal[3 * v + 1], normal[3 * v + 2]);
    if (isBorder[v] || !(area[v] > 0) || !(long > 0)) continue;
    const along = [0, 1, 2].reduce((sum, d) => sum + bend[3 * v + d] * normal[3 * v + d], 0);
    curvature[v] = (Math.sign(along) * Math.hypot(...bend.subarray(3 * v, 3 * v + 3))) / (4 * area[v]);
  }
  fromInside(curvature, isBorder, open.keys(), count);
  return curvature;
}

function fromInside(
  curvature: Float64Array,
  isBorder: Uint8Array,
  edges: Iterable<number>,
  count: number,
): void {
  const sum = new Float64Array(count);
  const many = new Uint32Array(count);
  for (const key of edges) {
    const [a, b] = [Math.floor(key / count), key % count];
    for (const [border, inside] of [
      [a, b],
      [b, a],
    ]) {
      if (!isBorder[border] || isBorder[inside]) continue;
      sum[border] += curvature[inside];
      many[border]++;
    }
  }
  for (let v = 0; v < count; v++) if (many[v] > 0) curvature[v] = sum[v] / many[v];
}

const minus = (p: ArrayLike<number>, a: number, b: number): [number, number, number] => [
  p[3 * a] - p[3 * b],
  p[3 * a + 1] - p[3 * b + 1],
  p[3 * a + 2] - p[3 * b + 2],
];
const crossed = (a: readonly number[], b: readonly number[]): [number, number, number] => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];
