import { type FlatBuffers, type ModelBuffers, NO_UV } from '../worker/protocol.ts';
import { times } from './reading.ts';

/** A place that stretches more than all near it. */
export interface WorstPlace {
  readonly faces: readonly number[];
  told(overlay: string): string;
}

const MOST_PLACES = 12;
/** Places are told apart when they lie at least so far from one another, as a part of the tile. */
const APART = 0.06;
/** Nothing is worth a look that lies so near the middle of the ramp. */
const EVEN = 0.05;

/**
 * Places where a figure of triangles is furthest from ideal, the worst first, each a way from the others.
 *
 * @param place  where a value lies on the ramp of its overlay
 */
export function worstPlaces(
  { triangleFace }: Pick<ModelBuffers, 'triangleFace'>,
  { uv }: Pick<FlatBuffers, 'uv'>,
  values: Float32Array,
  place: (value: number) => number,
): WorstPlace[] {
  const ideal = place(0);
  const badness = (t: number) => Math.abs(place(values[t]) - ideal);
  const order = Uint32Array.from(values.keys())
    .filter((t) => uv[6 * t] !== NO_UV && badness(t) > EVEN)
    .sort((a, b) => badness(b) - badness(a));
  const places: WorstPlace[] = [];
  const middles: (readonly [number, number])[] = [];
  for (const t of order) {
    const [u, v] = [0, 1].map((k) => (uv[6 * t + k] + uv[6 * t + 2 + k] + uv[6 * t + 4 + k]) / 3);
    if (middles.some(([a, b]) => Math.hypot(a - u, b - v) < APART)) continue;
    middles.push([u, v]);
    const value = values[t];
    places.push({ faces: [triangleFace[t]], told: (overlay) => tell(overlay, value) });
    if (places.length === MOST_PLACES) break;
  }
  return places;
}

function tell(overlay: string, value: number): string {
  if (overlay === 'angle') return `${value.toFixed(0)}° off square`;
  return `${times(Math.exp(Math.abs(value)))} too ${value < 0 ? 'little' : 'much'} room`;
}
