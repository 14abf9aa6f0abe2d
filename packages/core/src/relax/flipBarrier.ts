/**
 * How far along a direction the first triangle collapses (Smith and Schaefer 2015): the least positive root of
 * each triangle's area, a quadratic in the step.
 *
 * @param direction  `2 × vertexCount`
 * @returns the step of the first collapse, Infinity when there is none
 */
export function stepToCollapse(triangles: Uint32Array, uv: Float64Array, direction: Float64Array): number {
  let least = Infinity;
  for (let i = 0; i < triangles.length; i += 3) {
    const a = 2 * triangles[i];
    const b = 2 * triangles[i + 1];
    const c = 2 * triangles[i + 2];
    const ux = uv[b] - uv[a];
    const uy = uv[b + 1] - uv[a + 1];
    const vx = uv[c] - uv[a];
    const vy = uv[c + 1] - uv[a + 1];
    const dux = direction[b] - direction[a];
    const duy = direction[b + 1] - direction[a + 1];
    const dvx = direction[c] - direction[a];
    const dvy = direction[c + 1] - direction[a + 1];
    const step = leastPositiveRoot(
      dux * dvy - duy * dvx,
      ux * dvy - uy * dvx + dux * vy - duy * vx,
      ux * vy - uy * vx,
    );
    if (step < least) least = step;
  }
  return least;
}

/** Least positive t with a t² + b t + c = 0, for c > 0; Infinity when there is none. */
function leastPositiveRoot(a: number, b: number, c: number): number {
  const discriminant = b * b - 4 * a * c;
  if (discriminant < 0) return Infinity;
  // The form that never subtracts nearly equal numbers.
  const q = -0.5 * (b + (b >= 0 ? Math.sqrt(discriminant) : -Math.sqrt(discriminant)));
  const r1 = q / a;
  const r2 = c / q;
  let least = Infinity;
  if (r1 > 0 && r1 < least) least = r1;
  if (r2 > 0 && r2 < least) least = r2;
  return least;
}
