/** Turns taken at most. */
const MOST_TURNS = 8;

/**
 * A place of one set of points and one of another that lie near each other: from a place of one the nearest of the other, and back, until
 * neither moves (alternating projections). No nearer pair has either of the two in it.
 *
 * @param positions  xyz per point
 * @param start  one of the first set
 */
export function nearestBetween(
  positions: Float64Array,
  isFirst: (point: number) => boolean,
  isSecond: (point: number) => boolean,
  start: number,
): readonly [first: number, second: number] {
  const nearest = (to: number, isWanted: (point: number) => boolean): number => {
    let best = -1;
    let least = Infinity;
    for (let v = 0; 3 * v < positions.length; v++) {
      if (!isWanted(v)) continue;
      let square = 0;
      for (let k = 0; k < 3; k++) square += (positions[3 * v + k] - positions[3 * to + k]) ** 2;
      if (square < least) [best, least] = [v, square];
    }
    return best;
  };
  let first = start;
  let second = nearest(first, isSecond);
  for (let i = 0; i < MOST_TURNS; i++) {
    const back = nearest(second, isFirst);
    if (back === first) break;
    first = back;
    second = nearest(first, isSecond);
  }
  return [first, second];
}
