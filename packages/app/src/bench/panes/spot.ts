import type { Pane, Spot } from '../../store/selection.ts';
import { type FlatBuffers, type ModelBuffers, NO_UV } from '../../worker/protocol.ts';

/**
 * Where a place of one pane is in the other.
 *
 * @param point  on the model in its own axes, on the Board u, v and anything
 * @returns undefined where the face has no UVs, or the place is not on it
 */
export function spotOf(
  { triangleFace, positions }: ModelBuffers,
  { uv }: FlatBuffers,
  pane: Pane,
  face: number,
  point: readonly number[],
): Spot | undefined {
  for (let t = triangleFace.indexOf(face); t >= 0 && triangleFace[t] === face; t++) {
    if (uv[6 * t] === NO_UV) return undefined;
    const solid = [0, 1, 2].map((k) => positions.subarray(9 * t + 3 * k, 9 * t + 3 * k + 3));
    const flat = [0, 1, 2].map((k) => uv.subarray(6 * t + 2 * k, 6 * t + 2 * k + 2));
    const weights = barycentric(pane === 'model' ? solid : flat, point);
    if (!weights.every((w) => w > -1e-3)) continue;
    const mix = (places: readonly Float32Array[], k: number) =>
      places.reduce((sum, place, i) => sum + weights[i] * place[k], 0);
    return { solid: [mix(solid, 0), mix(solid, 1), mix(solid, 2)], uv: [mix(flat, 0), mix(flat, 1)] };
  }
  return undefined;
}

/** Weights of the corners of a triangle at the place in its plane that is nearest to a point, in two or three dimensions. */
function barycentric([a, b, c]: readonly Float32Array[], p: readonly number[]): [number, number, number] {
  let [uu, uv, vv, pu, pv] = [0, 0, 0, 0, 0];
  for (let k = 0; k < a.length; k++) {
    const [u, v, w] = [b[k] - a[k], c[k] - a[k], p[k] - a[k]];
    uu += u * u;
    uv += u * v;
    vv += v * v;
    pu += w * u;
    pv += w * v;
  }
  const det = uu * vv - uv * uv || 1;
  const [s, t] = [(vv * pu - uv * pv) / det, (uu * pv - uv * pu) / det];
  return [1 - s - t, s, t];
}
