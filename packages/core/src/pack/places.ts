/** Where pieces lie: each by the middle of its box, turned and scaled about it. */
export interface Places {
  readonly u: Float64Array;
  readonly v: Float64Array;
  /** Radians, anticlockwise. */
  readonly angle: Float64Array;
  readonly scale: Float64Array;
}

export const placesFor = (count: number): Places => ({
  u: new Float64Array(count),
  v: new Float64Array(count),
  angle: new Float64Array(count),
  scale: new Float64Array(count).fill(1),
});

export function copyPlaces(from: Places, to: Places): void {
  to.u.set(from.u);
  to.v.set(from.v);
  to.angle.set(from.angle);
  to.scale.set(from.scale);
}
