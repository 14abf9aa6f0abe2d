/** How far two vertices lie apart, model units. */
export const distance = (positions: Float64Array, a: number, b: number): number =>
  Math.hypot(
    positions[3 * a] - positions[3 * b],
    positions[3 * a + 1] - positions[3 * b + 1],
    positions[3 * a + 2] - positions[3 * b + 2],
  );
