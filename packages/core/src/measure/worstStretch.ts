/**
 * How far the direction is off that is off most: the natural logarithm of the greater of σ₁ and 1/σ₂, the singular values of a map that is as large as
 * it should be. 0 is ideal, ln 2 twice or half as long as it should be. It follows from what area and angle alone tell: σ₁σ₂ is the
 * ratio of areas, and Tissot's ω has sin(ω/2) = (σ₁ − σ₂)/(σ₁ + σ₂) (Snyder 1987, p. 20).
 *
 * @param logArea  natural logarithm of the ratio of areas
 * @param angle  ω, degrees, 0 to 180
 */
export const worstStretch = (logArea: number, angle: number): number =>
  0.5 * (Math.abs(logArea) + Math.log(aspect(angle)));

/** σ₁/σ₂ by ω, degrees; what has no width is cut off at 10⁹. */
export function aspect(angle: number): number {
  const sine = Math.sin((angle * Math.PI) / 360);
  return Math.min(1e9, (1 + sine) / (1 - sine));
}
