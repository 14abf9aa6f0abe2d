/** How a piece may be turned. */
export interface Turning {
  /** Angles that are likely to do, radians. */
  readonly angles: readonly number[];
  /** Whether any other will do as well. */
  readonly isFree: boolean;
}

/** Angles by which a shape that may be turned freely is tried, round a half turn. */
const TRIED = 180;

/** Angles at which a shape may be tried. */
export const anglesOf = ({ angles, isFree }: Turning): readonly number[] =>
  isFree ? [...angles, ...Array.from({ length: TRIED }, (_, k) => (k * Math.PI) / TRIED)] : angles;
