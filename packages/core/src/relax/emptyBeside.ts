import { borders } from '../surface/borders.ts';
import { outerTriangles } from './outerTriangles.ts';

type Place = readonly [u: number, v: number];

/**
 * What is empty beside the border of a map, by the triangles that fill it: see `outerTriangles`.
 *
 * @param triangles  of the map
 * @param uv  `2 × vertexCount`
 * @returns gives the middle of the triangle beyond a side of the border, which is named in the direction of the triangle of the map; undefined
 *   where borders cross or touch
 */
export function emptyBeside(
  triangles: Uint32Array,
  uv: Float64Array,
): ((from: number, to: number) => Place | undefined) | undefined {
  const { loops } = borders(triangles, uv.length / 2);
  // Over the vertices of the borders alone.
  const border = loops.flatMap((loop) => [...loop]);
  let first = 0;
  const own = loops.map((loop) => Uint32Array.from(loop, () => first++));
  const places = Float64Array.from({ length: 2 * border.length }, (_, i) => uv[2 * border[i >> 1] + (i & 1)]);
  const outer = outerTriangles(places, own);
  if (!outer) return undefined;
  const all = new Float64Array([...places, ...outer.added]);
  const middles = new Map<string, Place>();
  for (let t = 0; t < outer.triangles.length; t += 3) {
    const corners = outer.triangles.subarray(t, t + 3);
    const mean = (k: number) => corners.reduce((sum, v) => sum + all[2 * v + k], 0) / 3;
    const middle: Place = [mean(0), mean(1)];
    for (let k = 0; k < 3; k++) {
      const [from, to] = [corners[k], corners[(k + 1) % 3]];
      // What is empty has the sides the other way round.
      if (Math.max(from, to) < border.length) middles.set(`${border[to]} ${border[from]}`, middle);
    }
  }
  return (from, to) => middles.get(`${from} ${to}`);
}
