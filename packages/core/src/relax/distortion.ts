import { LOWER_ENTRIES } from '../linear/triangleSystem.ts';
import { type Context, heedStop } from '../progress.ts';
import type { RestTriangles } from '../surface/restTriangles.ts';

/**
 * What relaxing lowers: the mean over the surface of 4 k hᶿ, where J takes a triangle from its own plane to the flat,
 * k = ‖J‖² / 2 det J tells how far angles are off and h = (det J + 1 / det J) / 2 how far area is (Degener, Meseth, Klein
 * 2003). θ = 1 is the symmetric Dirichlet energy ‖J‖² + ‖J⁻¹‖² (Smith and Schaefer 2015); less weighs angles more, more
 * weighs area more. It is 4 where nothing is stretched and infinite where a triangle collapses.
 *
 * @param term  what becomes of h, `areaTerm` of θ by default
 * @returns Infinity when any triangle is flipped or collapsed, unless the term allows for it
 */
export function energy(
  triangles: Uint32Array,
  rest: RestTriangles,
  uv: Float64Array,
  term: AreaTerm = symmetric,
): number {
  let sum = 0;
  const J = new Float64Array(4);
  const f = new Float64Array(3);
  for (let t = 0; t < rest.area.length; t++) {
    jacobian(triangles, rest.local, uv, t, J);
    term(J[0] * J[3] - J[1] * J[2], f);
    if (f[0] === Infinity) return Infinity;
    const square = J[0] * J[0] + J[1] * J[1] + J[2] * J[2] + J[3] * J[3];
    sum += rest.area[t] * 2 * square * f[0];
  }
  return sum / rest.totalArea;
}

/** f with energy 2 ‖J‖² f(det J), and its first two derivatives, into three numbers. */
export type AreaTerm = (det: number, f: Float64Array) => void;

/** f = hᶿ / det J, infinite where a triangle is flipped or collapsed. */
export const areaTerm = (theta: number): AreaTerm =>
  termOf((h, g) => {
    const power = theta === 1 ? h : h ** theta;
    g[0] = power;
    g[1] = (theta * power) / h;
    g[2] = (theta * (theta - 1) * power) / (h * h);
  });

/**
 * f = (1 + (h / bound)²) / det J: 4 k as long as area is within a factor of some `bound` of its due, so that angles alone count, and ever
 * steeper beyond. The least of it is the best conformal map of which no part is much smaller than 1 / (2 bound) of its due.
 */
export const boundedConformal = (bound: number): AreaTerm =>
  termOf((h, g) => {
    g[0] = 1 + (h / bound) ** 2;
    g[1] = (2 * h) / (bound * bound);
    g[2] = 2 / (bound * bound);
  });

/** f = g(h) / det J with h = (det J + 1 / det J) / 2; g with its first two derivatives goes into three numbers. */
function termOf(growth: (h: number, g: Float64Array) => void): AreaTerm {
  const g = new Float64Array(3);
  return (det, f) => {
    if (!(det > 0)) {
      f[0] = Infinity;
      return;
    }
    growth(0.5 * (det + 1 / det), g);
    const slope = 0.5 * (1 - 1 / (det * det));
    f[0] = g[0] / det;
    f[1] = (g[1] * slope - f[0]) / det;
    f[2] = (g[2] * slope * slope + g[1] / (det * det * det) - 2 * f[1]) / det;
  };
}

const symmetric = areaTerm(1);

/**
 * The two parts of the symmetric Dirichlet energy, the means of ‖J‖² and of ‖J⁻¹‖²: a map s times as large has
 * s² stretch + s⁻² shrink.
 */
export function dirichletParts(
  triangles: Uint32Array,
  rest: RestTriangles,
  uv: Float64Array,
): { stretch: number; shrink: number } {
  let [stretch, shrink] = [0, 0];
  const J = new Float64Array(4);
  for (let t = 0; t < rest.area.length; t++) {
    jacobian(triangles, rest.local, uv, t, J);
    const det = J[0] * J[3] - J[1] * J[2];
    const square = J[0] * J[0] + J[1] * J[1] + J[2] * J[2] + J[3] * J[3];
    stretch += rest.area[t] * square;
    shrink += (rest.area[t] * square) / (det * det);
  }
  return { stretch: stretch / rest.totalArea, shrink: shrink / rest.totalArea };
}

/** J of triangle t into four numbers, row by row: du/dx, du/dy, dv/dx, dv/dy. */
export function jacobian(
  triangles: Uint32Array,
  local: Float64Array,
  uv: Float64Array,
  t: number,
  J: Float64Array,
): void {
  const a = 2 * triangles[3 * t];
  const b = 2 * triangles[3 * t + 1];
  const c = 2 * triangles[3 * t + 2];
  const x2 = local[3 * t];
  const x3 = local[3 * t + 1];
  const y3 = local[3 * t + 2];
  J[0] = (uv[b] - uv[a]) / x2;
  J[1] = (uv[c] - uv[a] - J[0] * x3) / y3;
  J[2] = (uv[b + 1] - uv[a + 1]) / x2;
  J[3] = (uv[c + 1] - uv[a + 1] - J[2] * x3) / y3;
}

export interface Quadratic {
  /** Of the energy, `2 × vertexCount`. */
  readonly gradient: Float64Array;
  /** Lower entries of a positive semidefinite stand-in for each triangle's Hessian, `21 × triangleCount`. */
  readonly hessian: Float64Array;
}

/**
 * Gradient and projected Hessian. The four eigenpairs of a triangle's Hessian over J are known in closed form
 * (Smith, de Goes, Kim 2019): two scalings, a twist and a flip; negative ones are dropped.
 *
 * @param uv  with no flipped triangle, unless the term allows for them
 */
export function quadratic(
  triangles: Uint32Array,
  rest: RestTriangles,
  uv: Float64Array,
  term: AreaTerm = symmetric,
  signal?: Context['signal'],
): Quadratic {
  const gradient = new Float64Array(uv.length);
  const hessian = new Float64Array(LOWER_ENTRIES * rest.area.length);
  const J = new Float64Array(4);
  const H = new Float64Array(10);
  const derivatives = new Float64Array(3);
  for (let t = 0; t < rest.area.length; t++) {
    if ((t & 0x7fff) === 0) heedStop(signal);
    jacobian(triangles, rest.local, uv, t, J);
    const weight = rest.area[t] / rest.totalArea;
    const x2 = rest.local[3 * t];
    const x3 = rest.local[3 * t + 1];
    const y3 = rest.local[3 * t + 2];
    // How du/dx and du/dy depend on the three corners.
    const gx1 = 1 / x2;
    const gy1 = -x3 / (x2 * y3);
    const gy2 = 1 / y3;
    const gx0 = -gx1;
    const gy0 = -gy1 - gy2;

    const det = J[0] * J[3] - J[1] * J[2];
    const square = J[0] * J[0] + J[1] * J[1] + J[2] * J[2] + J[3] * J[3];
    // ψ = 2 q f(d) with q = ‖J‖² and d = det J.
    term(det, derivatives);
    const onSquare = 4 * weight * derivatives[0];
    const onDet = 2 * weight * square * derivatives[1];
    const p0 = onSquare * J[0] + onDet * J[3];
    const p1 = onSquare * J[1] - onDet * J[2];
    const p2 = onSquare * J[2] - onDet * J[1];
    const p3 = onSquare * J[3] + onDet * J[0];
    const a = 2 * triangles[3 * t];
    const b = 2 * triangles[3 * t + 1];
    const c = 2 * triangles[3 * t + 2];
    gradient[a] += p0 * gx0 + p1 * gy0;
    gradient[a + 1] += p2 * gx0 + p3 * gy0;
    gradient[b] += p0 * gx1 + p1 * gy1;
    gradient[b + 1] += p2 * gx1 + p3 * gy1;
    gradient[c] += p1 * gy2;
    gradient[c + 1] += p3 * gy2;

    projectedHessian(J, det, square, derivatives, weight, H);
    // Of u and v at corners 1 and 2, of which the latter hangs on one derivative alone; corner 0 moves against both.
    const uu11 = gx1 * (gx1 * H[0] + 2 * gy1 * H[1]) + gy1 * gy1 * H[2];
    const uu12 = gy2 * (gx1 * H[1] + gy1 * H[2]);
    const uu22 = gy2 * gy2 * H[2];
    const uv11 = gx1 * (gx1 * H[3] + gy1 * H[6]) + gy1 * (gx1 * H[4] + gy1 * H[7]);
    const uv12 = gy2 * (gx1 * H[6] + gy1 * H[7]);
    const uv21 = gy2 * (gx1 * H[4] + gy1 * H[7]);
    const uv22 = gy2 * gy2 * H[7];
    const vv11 = gx1 * (gx1 * H[5] + 2 * gy1 * H[8]) + gy1 * gy1 * H[9];
    const vv12 = gy2 * (gx1 * H[8] + gy1 * H[9]);
    const vv22 = gy2 * gy2 * H[9];
    const at = LOWER_ENTRIES * t;
    hessian[at] = uu11 + 2 * uu12 + uu22;
    hessian[at + 1] = uv11 + uv12 + uv21 + uv22;
    hessian[at + 2] = vv11 + 2 * vv12 + vv22;
    hessian[at + 3] = -uu11 - uu12;
    hessian[at + 4] = -uv11 - uv12;
    hessian[at + 5] = uu11;
    hessian[at + 6] = -uv11 - uv21;
    hessian[at + 7] = -vv11 - vv12;
    hessian[at + 8] = uv11;
    hessian[at + 9] = vv11;
    hessian[at + 10] = -uu12 - uu22;
    hessian[at + 11] = -uv21 - uv22;
    hessian[at + 12] = uu12;
    hessian[at + 13] = uv21;
    hessian[at + 14] = uu22;
    hessian[at + 15] = -uv12 - uv22;
    hessian[at + 16] = -vv12 - vv22;
    hessian[at + 17] = uv12;
    hessian[at + 18] = vv12;
    hessian[at + 19] = uv22;
    hessian[at + 20] = vv22;
  }
  return { gradient, hessian };
}

/**
 * The Hessian of ψ over J without its negative eigenvalues: ten lower entries, row by row, by du/dx, du/dy, dv/dx, dv/dy. With the singular
 * values s₁, s₂ of J = R(α) diag(s₁, s₂) R(β); only products of the cosines and sines of α and β are needed, which the rotating
 * and the mirroring part of J give without any angle.
 *
 * @param derivatives  f, f′ and f″
 */
function projectedHessian(
  J: Float64Array,
  det: number,
  square: number,
  derivatives: Float64Array,
  weight: number,
  H: Float64Array,
): void {
  const f = derivatives[0];
  const f1 = derivatives[1];
  const f2 = derivatives[2];
  const sum = Math.sqrt(Math.max(0, square + 2 * det));
  const difference = Math.sqrt(Math.max(0, square - 2 * det));
  const s1 = 0.5 * (sum + difference);
  const s2 = det / s1;
  // Cosine and sine of α + β and of α − β; any will do where nothing tells.
  const cosPlus = sum > 0 ? (J[0] + J[3]) / sum : 1;
  const sinPlus = sum > 0 ? (J[2] - J[1]) / sum : 0;
  const cosMinus = difference > 0 ? (J[0] - J[3]) / difference : 1;
  const sinMinus = difference > 0 ? (J[2] + J[1]) / difference : 0;
  const cc = 0.5 * (cosMinus + cosPlus);
  const ss = 0.5 * (cosMinus - cosPlus);
  const sc = 0.5 * (sinPlus + sinMinus);
  const cs = 0.5 * (sinPlus - sinMinus);
  // The derivatives of ψ by s1 twice, by both, by s2 twice; and the turn that makes them diagonal.
  const h11 = 4 * f + 8 * det * f1 + 2 * square * s2 * s2 * f2;
  const h22 = 4 * f + 8 * det * f1 + 2 * square * s1 * s1 * f2;
  const h12 = 6 * square * f1 + 2 * square * det * f2;
  const half = 0.5 * (h11 - h22);
  const spread = Math.sqrt(half * half + h12 * h12);
  // Of the half of the angle of (half, h12), the greater of cosine and sine first.
  let c = 1;
  let s = 0;
  if (spread > 0) {
    const greater = Math.sqrt(0.5 * (1 + Math.abs(half) / spread));
    const less = (0.5 * Math.abs(h12)) / (spread * greater);
    c = half >= 0 ? greater : less;
    s = h12 >= 0 ? (half >= 0 ? less : greater) : half >= 0 ? -less : -greater;
  }
  const middle = 0.5 * (h11 + h22);
  H.fill(0);
  // Scalings R(α) diag(c, s) R(β) and R(α) diag(−s, c) R(β).
  addMode(H, weight * (middle + spread), c * cc - s * ss, -c * cs - s * sc, c * sc + s * cs, s * cc - c * ss);
  addMode(H, weight * (middle - spread), -s * cc - c * ss, s * cs - c * sc, c * cs - s * sc, s * ss + c * cc);
  // Twist R(α) [0 −1; 1 0] R(β) / √2 and flip R(α) [0 1; 1 0] R(β) / √2.
  addMode(H, 0.5 * weight * (4 * f + 2 * square * f1), -sc - cs, ss - cc, cc - ss, -cs - sc);
  addMode(H, 0.5 * weight * (4 * f - 2 * square * f1), cs - sc, ss + cc, cc + ss, sc - cs);
}

/** Adds `scale` times the outer product of a mode, if it is positive. */
function addMode(H: Float64Array, scale: number, a: number, b: number, c: number, d: number): void {
  if (!(scale > 0)) return;
  H[0] += scale * a * a;
  H[1] += scale * a * b;
  H[2] += scale * b * b;
  H[3] += scale * a * c;
  H[4] += scale * b * c;
  H[5] += scale * c * c;
  H[6] += scale * a * d;
  H[7] += scale * b * d;
  H[8] += scale * c * d;
  H[9] += scale * d * d;
}
