import { multiplyTriangles } from '../linear/triangleSystem.ts';

/**
 * Sets of vertices that keep their shape within a Newton step: each moves by a shift and a turn, and everything free
 * follows. The motions are few, so they are eliminated last, one extra solve each (a Schur complement).
 */
export interface RigidMotion {
  readonly group: Uint32Array;
  /** Middle of the group, about which it turns. */
  readonly centre: readonly [number, number];
  readonly shift: readonly [number, number];
  /** Radians for a step of full length. */
  readonly turn: number;
}

/**
 * @param groups  none of them sharing a vertex; one that holds a fixed vertex stays as it is
 * @param direction  the Newton step of the free vertices with the groups held
 * @param solve  solves for the free vertices, others zero
 * @returns the step of all vertices; its groups move along the tangent of their turns: see `moveRigidly`
 */
export function rigidDirection(
  triangles: Uint32Array,
  uv: Float64Array,
  groups: readonly Uint32Array[],
  fixed: Uint8Array,
  gradient: Float64Array,
  hessian: Float64Array,
  direction: Float64Array,
  solve: (rightHand: Float64Array) => Float64Array,
): { direction: Float64Array; motions: RigidMotion[] } {
  const loose = groups.filter((group) => group.length > 0 && !group.some((v) => fixed[v]));
  const centres = loose.map((group) => centreOf(group, uv));
  const basis = loose.flatMap((group, g) => [0, 1, 2].map((k) => motionOf(group, centres[g], k, uv)));
  const size = basis.length;
  // Each motion with what the free vertices do along; H times it is zero on these.
  const modes: Float64Array[] = [];
  const forces: Float64Array[] = [];
  for (const motion of basis) {
    const follow = solve(multiplyTriangles(triangles, hessian, motion).map((x) => -x));
    const mode = motion.map((x, i) => x + follow[i]);
    modes.push(mode);
    forces.push(multiplyTriangles(triangles, hessian, mode));
  }
  const reduced = basis.map((motion) => forces.map((force) => dot(motion, force)));
  // A lone group leaves the motion of the whole shell free: any answer will do, so a little keeps it definite.
  const trace = reduced.reduce((sum, row, i) => sum + row[i], 0);
  for (let i = 0; i < size; i++) reduced[i][i] += (1e-9 * trace) / size + Number.MIN_VALUE;
  const amounts = solveDense(
    reduced,
    modes.map((mode) => -dot(mode, gradient)),
  );
  const whole = direction.slice();
  amounts.forEach((amount, k) => {
    for (let i = 0; i < whole.length; i++) whole[i] += amount * modes[k][i];
  });
  const motions = loose.map((group, g) => ({
    group,
    centre: centres[g],
    shift: [amounts[3 * g], amounts[3 * g + 1]] as const,
    turn: amounts[3 * g + 2],
  }));
  return { direction: whole, motions };
}

/** Puts a group where a step of `length` takes it from `uv`, exactly as it was in shape. */
export function moveRigidly(
  { group, centre, shift, turn }: RigidMotion,
  uv: Float64Array,
  length: number,
  into: Float64Array,
): void {
  const c = Math.cos(length * turn);
  const s = Math.sin(length * turn);
  for (const v of group) {
    const du = uv[2 * v] - centre[0];
    const dv = uv[2 * v + 1] - centre[1];
    into[2 * v] = centre[0] + length * shift[0] + c * du - s * dv;
    into[2 * v + 1] = centre[1] + length * shift[1] + s * du + c * dv;
  }
}

function centreOf(group: Uint32Array, uv: Float64Array): [number, number] {
  const sum: [number, number] = [0, 0];
  for (const v of group) {
    sum[0] += uv[2 * v] / group.length;
    sum[1] += uv[2 * v + 1] / group.length;
  }
  return sum;
}

/** A unit of shift along u, along v, or of turn, over all vertices. */
function motionOf(
  group: Uint32Array,
  [cu, cv]: readonly [number, number],
  kind: number,
  uv: Float64Array,
): Float64Array {
  const motion = new Float64Array(uv.length);
  for (const v of group) {
    if (kind < 2) motion[2 * v + kind] = 1;
    else {
      motion[2 * v] = cv - uv[2 * v + 1];
      motion[2 * v + 1] = uv[2 * v] - cu;
    }
  }
  return motion;
}

function dot(a: Float64Array, b: Float64Array): number {
  let sum = 0;
  for (let i = 0; i < a.length; i++) sum += a[i] * b[i];
  return sum;
}

/** x with A x = b for a small symmetric positive definite A, by Gaussian elimination. */
function solveDense(a: number[][], b: number[]): number[] {
  const n = b.length;
  const rows = a.map((row, i) => [...row, b[i]]);
  for (let k = 0; k < n; k++) {
    for (let i = k + 1; i < n; i++) {
      const factor = rows[i][k] / rows[k][k];
      for (let j = k; j <= n; j++) rows[i][j] -= factor * rows[k][j];
    }
  }
  const x = new Array<number>(n).fill(0);
  for (let k = n - 1; k >= 0; k--) {
    let sum = rows[k][n];
    for (let j = k + 1; j < n; j++) sum -= rows[k][j] * x[j];
    x[k] = sum / rows[k][k];
  }
  return x;
}
