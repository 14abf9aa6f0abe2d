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
  const badness = values.map((value, t) => (uv[6 * t] === NO_UV ? 0 : Math.abs(place(value) - ideal)));
  const middleOf = (t: number) =>
    [0, 1].map((k) => (uv[6 * t + k] + uv[6 * t + 2 + k] + uv[6 * t + 4 + k]) / 3);
  const places: WorstPlace[] = [];
  while (places.length < MOST_PLACES) {
    // A few passes cost less than to sort them all.
    let worst = 0;
    for (let t = 1; t < badness.length; t++) if (badness[t] > badness[worst]) worst = t;
    if (!(badness[worst] > EVEN)) break;
    const [u, v] = middleOf(worst);
    const value = values[worst];
    places.push({ faces: [triangleFace[worst]], told: (overlay) => tell(overlay, value) });
    for (let t = 0; t < badness.length; t++) {
      if (badness[t] <= EVEN) continue;
      const [a, b] = middleOf(t);
      if (Math.hypot(a - u, b - v) < APART) badness[t] = 0;
    }
  }
  return places;
}

function tell(overlay: string, value: number): string {
  if (overlay === 'angle') return `${value.toFixed(0)}° off square`;
  return `${times(Math.exp(Math.abs(value)))} too ${value < 0 ? 'little' : 'much'} room`;
}
