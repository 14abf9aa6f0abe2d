/** Determinant of the upper left 3 × 3 of a column-major 4 × 4 matrix: negative where it mirrors. */
export const determinant = (m: ArrayLike<number>): number =>
  m[0] * (m[5] * m[10] - m[6] * m[9]) -
  m[4] * (m[1] * m[10] - m[2] * m[9]) +
  m[8] * (m[1] * m[6] - m[2] * m[5]);
