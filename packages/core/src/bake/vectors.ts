export type Vector = readonly [number, number, number];

/** Weights of the corners of a triangle, 1 together. */
export type Weights = Vector;

/** What the corners of a triangle have, mixed by weights. @param list  three values a corner, `9 × triangleCount` */
export function mixedAt(list: ArrayLike<number>, triangle: number, [a, b, c]: Weights): Vector {
  const i = 9 * triangle;
  const mixed = (k: number) => a * list[i + k] + b * list[i + 3 + k] + c * list[i + 6 + k];
  return [mixed(0), mixed(1), mixed(2)];
}

/** As long as 1; a vector without length stays. */
export function unit([x, y, z]: Vector): Vector {
  const length = Math.hypot(x, y, z) || 1;
  return [x / length, y / length, z / length];
}

export const dot = (a: Vector, b: Vector): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];

export const minus = (a: Vector, b: Vector): Vector => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];

export const negative = ([x, y, z]: Vector): Vector => [-x, -y, -z];

/** The corner of a triangle. */
export const cornerOf = (points: ArrayLike<number>, triangle: number, corner: number): Vector => {
  const i = 9 * triangle + 3 * corner;
  return [points[i], points[i + 1], points[i + 2]];
};
