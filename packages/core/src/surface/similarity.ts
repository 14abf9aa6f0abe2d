/** Affine map of the flat: u' = a u + c v + e, v' = b u + d v + f, as `[a, b, c, d, e, f]`. */
export type UvMatrix = readonly [number, number, number, number, number, number];

export function transformUv(uv: Float64Array, [a, b, c, d, e, f]: UvMatrix): Float64Array {
  const out = new Float64Array(uv.length);
  for (let i = 0; i < uv.length; i += 2) {
    out[i] = a * uv[i] + c * uv[i + 1] + e;
    out[i + 1] = b * uv[i] + d * uv[i + 1] + f;
  }
  return out;
}

/**
 * The turn and move, at a given scale, that lays one set of points best on another (least squares; Kabsch 1976
 * in the plane). Points without a counterpart (NaN) do not count.
 *
 * @param from, to  `2 × n` each
 */
export function bestTurn(from: Float64Array, to: Float64Array, scale: number): UvMatrix {
  const sums = [0, 0, 0, 0];
  let count = 0;
  for (let i = 0; i < from.length; i += 2) {
    if (Number.isNaN(to[i])) continue;
    count++;
    sums[0] += from[i];
    sums[1] += from[i + 1];
    sums[2] += to[i];
    sums[3] += to[i + 1];
  }
  const [fu, fv, tu, tv] = sums.map((s) => s / (count || 1));
  let [dot, cross] = [0, 0];
  for (let i = 0; i < from.length; i += 2) {
    if (Number.isNaN(to[i])) continue;
    const [x, y, p, q] = [from[i] - fu, from[i + 1] - fv, to[i] - tu, to[i + 1] - tv];
    dot += x * p + y * q;
    cross += x * q - y * p;
  }
  const length = Math.hypot(dot, cross);
  const c = (length > 0 ? dot / length : 1) * scale;
  const s = (length > 0 ? cross / length : 0) * scale;
  return [c, s, -s, c, tu - (c * fu - s * fv), tv - (s * fu + c * fv)];
}

/**
 * The turn, scale and move that lays one set of points best on another (least squares; Umeyama 1991 in the plane, never mirrored). Points that all lie in one
 * place are only moved.
 *
 * @param from, to  `2 × n` each
 */
export function bestSimilarity(from: Float64Array, to: Float64Array): UvMatrix {
  const [[fu, fv], [tu, tv]] = [meanOf(from), meanOf(to)];
  let [dot, cross, square] = [0, 0, 0];
  for (let i = 0; i < from.length; i += 2) {
    const [x, y, p, q] = [from[i] - fu, from[i + 1] - fv, to[i] - tu, to[i + 1] - tv];
    dot += x * p + y * q;
    cross += x * q - y * p;
    square += x * x + y * y;
  }
  const [c, s] = square > 0 && dot * dot + cross * cross > 0 ? [dot / square, cross / square] : [1, 0];
  return [c, s, -s, c, tu - (c * fu - s * fv), tv - (s * fu + c * fv)];
}

/**
 * The turn by right angles and the move, at a given scale, that lay one set of points on another nearly as well as the best turn.
 *
 * @param from, to  `2 × n` each
 */
export function bestQuarterTurn(from: Float64Array, to: Float64Array, scale: number): UvMatrix {
  const [a, b] = bestTurn(from, to, scale);
  const [c, s] = Math.abs(a) >= Math.abs(b) ? [scale * Math.sign(a), 0] : [0, scale * Math.sign(b)];
  const [[fu, fv], [tu, tv]] = [meanOf(from), meanOf(to)];
  return [c, s, -s, c, tu - (c * fu - s * fv), tv - (s * fu + c * fv)];
}

/** The mean of points, `2 × n`. */
export function meanOf(points: Float64Array): [u: number, v: number] {
  const n = points.length / 2;
  let [u, v] = [0, 0];
  for (let i = 0; i < points.length; i += 2) {
    u += points[i] / n;
    v += points[i + 1] / n;
  }
  return [u, v];
}
