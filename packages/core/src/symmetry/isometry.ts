/** A rigid map of space that a figure may be symmetric by: three rows of four numbers, `x' = m₀ x + m₁ y + m₂ z + m₃` and so on. */
export type Isometry = Float64Array;

/** The mirror image in a plane. @param normal  of length 1 @param offset  of the plane along it */
export function mirrorIn(normal: readonly number[], offset: number): Isometry {
  const m = new Float64Array(12);
  for (let i = 0; i < 3; i++) {
    for (let j = 0; j < 3; j++) m[4 * i + j] = (i === j ? 1 : 0) - 2 * normal[i] * normal[j];
    m[4 * i + 3] = 2 * offset * normal[i];
  }
  return m;
}

/** A turn about an axis (Rodrigues 1840). @param axis  of length 1 @param through  a point of it @param angle  radians */
export function turnAbout(axis: readonly number[], through: readonly number[], angle: number): Isometry {
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  const [x, y, z] = axis;
  const cross = [0, -z, y, z, 0, -x, -y, x, 0];
  const m = new Float64Array(12);
  for (let i = 0; i < 3; i++) {
    for (let j = 0; j < 3; j++)
      m[4 * i + j] = (i === j ? c : 0) + s * cross[3 * i + j] + (1 - c) * axis[i] * axis[j];
    m[4 * i + 3] = through[i] - [0, 1, 2].reduce((sum, j) => sum + m[4 * i + j] * through[j], 0);
  }
  return m;
}

/** Where a point of a list goes. */
export function imageOf(m: Isometry, positions: Float64Array, point: number): [number, number, number] {
  const x = positions[3 * point];
  const y = positions[3 * point + 1];
  const z = positions[3 * point + 2];
  return [
    m[0] * x + m[1] * y + m[2] * z + m[3],
    m[4] * x + m[5] * y + m[6] * z + m[7],
    m[8] * x + m[9] * y + m[10] * z + m[11],
  ];
}

/** Whether it makes left hands of right ones. */
export const reverses = (m: Isometry): boolean =>
  m[0] * (m[5] * m[10] - m[6] * m[9]) -
    m[1] * (m[4] * m[10] - m[6] * m[8]) +
    m[2] * (m[4] * m[9] - m[5] * m[8]) <
  0;
