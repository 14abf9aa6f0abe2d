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

/** J row by row: du/dx, du/dy, dv/dx, dv/dy. */
function jacobian(
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
  const modes = new Float64Array(16);
  const eigenvalues = new Float64Array(4);
  const column = new Float64Array(6);
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
    const f = derivatives[0];
    const f1 = derivatives[1];
    const f2 = derivatives[2];
    const onSquare = 4 * weight * f;
    const onDet = 2 * weight * square * f1;
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

    eigenpairs(J, det, square, f, f1, f2, modes, eigenvalues);
    const first = LOWER_ENTRIES * t;
    for (let m = 0; m < 4; m++) {
      const scale = weight * eigenvalues[m];
      if (!(scale > 0)) continue;
      const d0 = modes[4 * m];
      const d1 = modes[4 * m + 1];
      const d2 = modes[4 * m + 2];
      const d3 = modes[4 * m + 3];
      column[0] = d0 * gx0 + d1 * gy0;
      column[1] = d2 * gx0 + d3 * gy0;
      column[2] = d0 * gx1 + d1 * gy1;
      column[3] = d2 * gx1 + d3 * gy1;
      column[4] = d1 * gy2;
      column[5] = d3 * gy2;
      let at = first;
      for (let i = 0; i < 6; i++) {
        for (let j = 0; j <= i; j++) hessian[at++] += scale * column[i] * column[j];
      }
    }
  }
  return { gradient, hessian };
}

/** Modes as 2 × 2 matrices row by row, with their eigenvalues; from the singular values of J and f, f′, f″. */
function eigenpairs(
  J: Float64Array,
  det: number,
  square: number,
  f: number,
  f1: number,
  f2: number,
  modes: Float64Array,
  eigenvalues: Float64Array,
): void {
  const sum = Math.sqrt(square + 2 * det);
  const difference = Math.sqrt(Math.max(0, square - 2 * det));
  const s1 = 0.5 * (sum + difference);
  const s2 = det / s1;
  // J = R(α) diag(s1, s2) R(β): α + β and α − β from its rotating and its mirroring part.
  const plus = Math.atan2(J[2] - J[1], J[0] + J[3]);
  const minus = Math.atan2(J[2] + J[1], J[0] - J[3]);
  const alpha = 0.5 * (plus + minus);
  const beta = 0.5 * (plus - minus);
  const ca = Math.cos(alpha);
  const sa = Math.sin(alpha);
  const cb = Math.cos(beta);
  const sb = Math.sin(beta);
  // The derivatives of ψ by s1 twice, by both, by s2 twice; and the turn that makes them diagonal.
  const h11 = 4 * f + 8 * det * f1 + 2 * square * s2 * s2 * f2;
  const h22 = 4 * f + 8 * det * f1 + 2 * square * s1 * s1 * f2;
  const h12 = 6 * square * f1 + 2 * square * det * f2;
  const half = 0.5 * (h11 - h22);
  const spread = Math.sqrt(half * half + h12 * h12);
  const angle = 0.5 * Math.atan2(h12, half);
  const c = Math.cos(angle);
  const s = Math.sin(angle);
  // Scalings R(α) diag(c, s) R(β) and R(α) diag(−s, c) R(β).
  scaling(modes, 0, ca, sa, cb, sb, c, s);
  scaling(modes, 4, ca, sa, cb, sb, -s, c);
  // Twist R(α) [0 −1; 1 0] R(β) / √2 and flip R(α) [0 1; 1 0] R(β) / √2.
  const h = Math.SQRT1_2;
  const e0 = ca * sb;
  const e1 = ca * cb;
  const e2 = sa * sb;
  const e3 = sa * cb;
  const g0 = -sa * cb;
  const g1 = sa * sb;
  const g2 = ca * cb;
  const g3 = -ca * sb;
  modes[8] = h * (g0 - e0);
  modes[9] = h * (g1 - e1);
  modes[10] = h * (g2 - e2);
  modes[11] = h * (g3 - e3);
  modes[12] = h * (g0 + e0);
  modes[13] = h * (g1 + e1);
  modes[14] = h * (g2 + e2);
  modes[15] = h * (g3 + e3);

  const middle = 0.5 * (h11 + h22);
  eigenvalues[0] = middle + spread;
  eigenvalues[1] = middle - spread;
  eigenvalues[2] = 4 * f + 2 * square * f1;
  eigenvalues[3] = 4 * f - 2 * square * f1;
}

/** R(α) diag(x, y) R(β) into four numbers of `modes`. */
function scaling(
  modes: Float64Array,
  at: number,
  ca: number,
  sa: number,
  cb: number,
  sb: number,
  x: number,
  y: number,
): void {
  modes[at] = x * ca * cb - y * sa * sb;
  modes[at + 1] = -x * ca * sb - y * sa * cb;
  modes[at + 2] = x * sa * cb + y * ca * sb;
  modes[at + 3] = -x * sa * sb + y * ca * cb;
}
