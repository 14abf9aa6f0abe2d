import { release } from '../linear/cholesky.ts';
import {
  factoriseTriangles,
  LOWER_ENTRIES,
  solveTriangles,
  type TriangleSystem,
  triangleSystem,
} from '../linear/triangleSystem.ts';
import { type Context, heedStop } from '../progress.ts';
import type { Shell } from '../surface/shell.ts';

export interface FlatAngles {
  /** Angle at every corner of every triangle, radians, `3 × triangleCount`; all positive. */
  readonly angles: Float64Array;
  readonly steps: number;
  /** Largest departure from flatness left: of a triangle's sum from π, a vertex's from 2π, or a wheel from closing. */
  readonly residual: number;
}

const MOST_STEPS = 30;
/** Corners between two questions whether to stop. */
const EVERY = 3 << 14;
/** The least a target angle may be, and what it stays away from π, radians: thinner triangles pull without end. */
const THINNEST = 1e-4;

/**
 * The angles of a flat mesh nearest to those of the surface: ABF++ (Sheffer, Lévy, Mogilnitsky, Bogomyakov 2005).
 *
 * Minimises Σ (αᵢ − βᵢ)² / βᵢ² where β are the surface's angles, scaled to 2π round inner vertices, subject to: the
 * angles of a triangle sum to π, those round an inner vertex to 2π (planarity), and the sides round it meet again
 * (wheel). Each Newton step eliminates the angles and then the triangles, which leaves two multipliers an inner
 * vertex, in a matrix made triangle by triangle. The wheel is in the logarithmic form of Zayer, Lévy and Seidel
 * (2007), Σ log sin α₊ − log sin α₋ = 0: the same solutions, better scaled, and a sum over triangles.
 *
 * @param target  angles β of the surface, `3 × triangleCount`
 * @param onBorder  1 for each vertex of a border
 * @throws StoppedError
 */
export function flatAngles(
  { triangles, positions }: Shell,
  target: Float64Array,
  onBorder: Uint8Array,
  context: Context,
): FlatAngles {
  const vertexCount = positions.length / 3;
  const { signal } = context;
  const beta = targets(triangles, target, onBorder);
  heedStop(signal);
  const angles = sumToPi(beta);
  if (onBorder.every((b) => b === 1)) return { angles, steps: 0, residual: 0 };
  const system = triangleSystem(triangles, vertexCount, onBorder, { signal });
  const lower = new Float64Array((LOWER_ENTRIES * triangles.length) / 3);
  const change = new Float64Array(angles.length);
  let factor: ReturnType<typeof factoriseTriangles> | undefined;
  let steps = 0;
  let residual = Infinity;
  for (; steps < MOST_STEPS; steps++) {
    const { excess, rightHand } = equations(system, angles, beta, lower, signal);
    residual = excess;
    if (residual < 1e-7) break;
    context.report({ fraction: steps / MOST_STEPS, figure: residual });
    factor = factoriseTriangles(system, lower, { shift: 1e-12, signal, reuse: factor });
    const multipliers = solveTriangles(system, factor, rightHand, signal);
    newtonChange(triangles, angles, beta, multipliers, change, signal);
    heedStop(signal);
    const step = stepInside(angles, change);
    for (let i = 0; i < angles.length; i++) angles[i] += step * change[i];
  }
  if (factor) release(factor);
  return { angles, steps, residual };
}

/** The surface's angles, scaled so that they sum to 2π round every inner vertex. */
function targets(triangles: Uint32Array, angles: Float64Array, onBorder: Uint8Array): Float64Array {
  const sum = new Float64Array(onBorder.length);
  for (let i = 0; i < angles.length; i++) sum[triangles[i]] += angles[i];
  return angles.map((angle, i) => {
    const v = triangles[i];
    const flat = onBorder[v] ? angle : (angle * 2 * Math.PI) / sum[v];
    return Math.min(Math.max(flat, THINNEST), Math.PI - THINNEST);
  });
}

/** Scales the angles of each triangle to sum to π. */
function sumToPi(beta: Float64Array): Float64Array {
  const angles = new Float64Array(beta.length);
  for (let i = 0; i < beta.length; i += 3) {
    const scale = Math.PI / (beta[i] + beta[i + 1] + beta[i + 2]);
    for (let k = i; k < i + 3; k++) angles[k] = beta[k] * scale;
  }
  return angles;
}

/**
 * The reduced Newton system at `angles`. Its unknowns, as u and v of each inner vertex, are the multipliers of
 * planarity and of the wheel.
 *
 * A triangle with corners p = 0, 1, 2 takes part in planarity of p by αₚ, and in the wheel of p by log sin of the
 * corner after p less that of the corner before.
 *
 * @param lower  receives each triangle's matrix G (D − D 1 1ᵀ D / 1ᵀ D 1) Gᵀ, where G holds the derivatives of its six
 *               constraints by its three angles and D = β² / 2
 */
function equations(
  { triangles, vertexCount, freeIndex }: TriangleSystem,
  angles: Float64Array,
  beta: Float64Array,
  lower: Float64Array,
  signal: Context['signal'],
): { excess: number; rightHand: Float64Array } {
  const violation = new Float64Array(2 * vertexCount);
  const rightHand = new Float64Array(2 * vertexCount);
  for (let v = 0; v < vertexCount; v++) violation[2 * v] = -2 * Math.PI;
  const g = new Float64Array(18);
  const gd = new Float64Array(6);
  const d = new Float64Array(3);
  let excess = 0;
  for (let t = 0, at = 0; t < triangles.length; t += 3) {
    if (t % EVERY === 0) heedStop(signal);
    let dSum = 0;
    let pull = 0; // 1ᵀ D ∇F
    for (let k = 0; k < 3; k++) {
      const b = beta[t + k];
      d[k] = 0.5 * b * b;
      dSum += d[k];
      pull += angles[t + k] - b;
    }
    const over = angles[t] + angles[t + 1] + angles[t + 2] - Math.PI;
    excess = Math.max(excess, Math.abs(over));
    derivatives(angles, t, g);
    for (let p = 0; p < 3; p++) {
      const v = 2 * triangles[t + p];
      const after = t + ((p + 1) % 3);
      const before = t + ((p + 2) % 3);
      violation[v] += angles[t + p];
      violation[v + 1] += Math.log(Math.sin(angles[after]) / Math.sin(angles[before]));
    }
    // What is left of the right-hand side: G D ∇F and G D 1 (c₁ − 1ᵀ D ∇F) / 1ᵀ D 1, where D ∇F = α − β.
    for (let r = 0; r < 6; r++) {
      gd[r] = 0;
      let own = 0;
      for (let k = 0; k < 3; k++) {
        gd[r] += g[3 * r + k] * d[k];
        own += g[3 * r + k] * (angles[t + k] - beta[t + k]);
      }
      rightHand[2 * triangles[t + (r >> 1)] + (r & 1)] -= own + (gd[r] * (over - pull)) / dSum;
    }
    for (let r = 0; r < 6; r++) {
      for (let c = 0; c <= r; c++) {
        let sum = (-gd[r] * gd[c]) / dSum;
        for (let k = 0; k < 3; k++) sum += g[3 * r + k] * d[k] * g[3 * c + k];
        lower[at++] = sum;
      }
    }
  }
  for (let v = 0; v < vertexCount; v++) {
    if (freeIndex[v] < 0) continue;
    excess = Math.max(excess, Math.abs(violation[2 * v]), Math.abs(violation[2 * v + 1]));
    rightHand[2 * v] += violation[2 * v];
    rightHand[2 * v + 1] += violation[2 * v + 1];
  }
  return { excess, rightHand };
}

/** Derivatives of planarity and wheel of corner p, rows 2p and 2p + 1, by the three angles of triangle t. */
function derivatives(angles: Float64Array, t: number, g: Float64Array): void {
  g.fill(0);
  for (let p = 0; p < 3; p++) {
    const after = (p + 1) % 3;
    const before = (p + 2) % 3;
    g[6 * p + p] = 1;
    g[6 * p + 3 + after] = 1 / Math.tan(angles[t + after]);
    g[6 * p + 3 + before] = -1 / Math.tan(angles[t + before]);
  }
}

/** Back from the multipliers to the angles: δ = −D (∇F + 1 μ + Gᵀ λ), with μ so that the triangle sums to π. */
function newtonChange(
  triangles: Uint32Array,
  angles: Float64Array,
  beta: Float64Array,
  multipliers: Float64Array,
  change: Float64Array,
  signal: Context['signal'],
): void {
  const g = new Float64Array(18);
  for (let t = 0; t < triangles.length; t += 3) {
    if (t % EVERY === 0) heedStop(signal);
    derivatives(angles, t, g);
    let dSum = 0;
    let changeSum = 0;
    for (let k = 0; k < 3; k++) {
      const d = 0.5 * beta[t + k] * beta[t + k];
      let force = 0;
      for (let p = 0; p < 3; p++) {
        const v = 2 * triangles[t + p];
        force += g[6 * p + k] * multipliers[v] + g[6 * p + 3 + k] * multipliers[v + 1];
      }
      change[t + k] = beta[t + k] - angles[t + k] - d * force;
      dSum += d;
      changeSum += change[t + k];
    }
    const over = angles[t] + angles[t + 1] + angles[t + 2] - Math.PI;
    const mu = (changeSum + over) / dSum;
    for (let k = 0; k < 3; k++) change[t + k] -= 0.5 * beta[t + k] * beta[t + k] * mu;
  }
}

/** The longest step, at most 1, that takes no angle more than nine tenths of the way to 0 or π. */
function stepInside(angles: Float64Array, change: Float64Array): number {
  let step = 1;
  for (let i = 0; i < angles.length; i++) {
    const room = change[i] < 0 ? angles[i] : Math.PI - angles[i];
    if (Math.abs(change[i]) * step > 0.9 * room) step = (0.9 * room) / Math.abs(change[i]);
  }
  return step;
}
