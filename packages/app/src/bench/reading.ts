/** What the stretch of a face means, in words. */

/**
 * @param logArea  logarithm of the share of the flat over the share of the surface
 * @param angle  Tissot's maximum angular deformation ω, degrees
 */
export function inWords(logArea: number, angle: number): string {
  // sin (ω / 2) = (Γ − γ) / (Γ + γ): how much longer the texture is one way than the other.
  const s = Math.sin((Math.min(angle, 179.9) * Math.PI) / 360);
  const longer = (1 + s) / (1 - s);
  const size = Math.exp(-logArea / 2);
  const sized =
    Math.abs(logArea) < 0.02
      ? 'as large as it should be'
      : size > 1
        ? `${times(size)} too large (${times(size ** 2)} the area)`
        : `${times(1 / size)} too small (${times(1 / size ** 2)} less area)`;
  const shaped =
    longer < 1.01 ? 'square' : `${times(longer)} longer one way, ${angle.toFixed(0)}° off square`;
  return `Texture ${sized}, ${shaped}`;
}

/** A factor as it is told. */
export const times = (factor: number): string => `${factor >= 100 ? factor.toFixed(0) : factor.toFixed(2)} ×`;

/** A figure without more digits than it is worth; what is without bound as such. */
export const decimal = (value: number, digits: number): string =>
  Number.isFinite(value) ? value.toFixed(value >= 100 ? 0 : digits) : '∞';
