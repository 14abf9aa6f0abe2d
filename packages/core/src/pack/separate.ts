import type { StopSignal } from '../progress.ts';
import { type Collider, pairKey } from './collider.ts';
import type { Piece } from './pieces.ts';
import type { Places } from './places.ts';
import { anglesOf, type Turning } from './turning.ts';

export interface Search {
  readonly pieces: readonly Piece[];
  readonly places: Places;
  readonly collider: Collider;
  /** Of pairs by `pairKey`: they grow while two pieces overlap. */
  readonly weights: Map<number, number>;
  /** Pieces that stay where they are. */
  readonly locked: readonly boolean[];
  readonly turning: readonly Turning[];
  /** Pieces near which each is laid, itself among them; undefined where it may lie anywhere. */
  readonly mates: readonly (readonly number[] | undefined)[];
  /** Whether pieces are moved no farther than they must be. */
  readonly stay: boolean;
  /** Penetration of a gap that is allowed. */
  readonly slack: number;
  readonly random: () => number;
  readonly signal: StopSignal;
}

/** How many places are drawn anywhere in the frame, and how many near to the piece. */
const [ANYWHERE, NEARBY] = [24, 8];
/** So many of the best are refined. */
const REFINED = 3;
/** A round multiplies the weight of the pair that overlaps most, of one that hardly does, and of all others by these. */
const [GROW_MOST, GROW_LEAST, DECAY] = [2, 1.2, 0.95];

/**
 * Moves pieces until none is nearer to another than the gap: one after the other to where its weighted overlap is least, while the weight of pairs that go on overlapping grows
 * (guided local search for nesting: Egeblad, Nielsen and Odgaard 2007; Umetani et al. 2009; the way it samples: Gardeyn, Vanden Berghe and
 * Wauters 2025).
 *
 * @param patience  rounds without a better layout after which it is given up
 * @param round  called before each; false ends the search
 * @returns whether all are clear
 */
export function separate(search: Search, patience: number, round: () => boolean): boolean {
  const { collider, weights, random, signal } = search;
  let [least, idle] = [Infinity, 0];
  while (!signal.aborted && round()) {
    const { pairs, total } = overlappingPairs(search);
    if (pairs.length === 0) return true;
    if (total < 0.98 * least) {
      least = total;
      idle = 0;
    } else if (++idle > patience) return false;
    reweigh(weights, pairs);
    const on = [...new Set(pairs.flatMap(({ i, j }) => [i, j]))].filter((i) => !search.locked[i]);
    for (let k = on.length - 1; k > 0; k--) {
      const swap = Math.floor(random() * (k + 1));
      [on[k], on[swap]] = [on[swap], on[k]];
    }
    for (const i of on) {
      if (signal.aborted) return false;
      const now = collider.weightedOverlap(i, Infinity);
      if (now > 0) movePiece(search, i, now);
    }
  }
  return false;
}

interface OverlappingPair {
  readonly i: number;
  readonly j: number;
  readonly overlap: number;
}

/** Pairs that overlap, and the sum of their overlaps. */
function overlappingPairs({ pieces, collider, locked, slack }: Search): {
  pairs: OverlappingPair[];
  total: number;
} {
  const pairs: OverlappingPair[] = [];
  let total = 0;
  for (let i = 0; i < pieces.length; i++)
    collider.near(i, (j) => {
      if (j < i || (locked[i] && locked[j])) return;
      const overlap = collider.overlap(i, j);
      if (overlap === 0 || collider.penetration() <= slack) return;
      pairs.push({ i, j, overlap });
      total += overlap;
    });
  return { pairs, total };
}

function reweigh(weights: Map<number, number>, pairs: readonly OverlappingPair[]): void {
  const worst = pairs.reduce((most, { overlap }) => Math.max(most, overlap), 0);
  const grown = new Map(
    pairs.map(({ i, j, overlap }) => {
      const key = pairKey(i, j);
      const factor = GROW_LEAST + (GROW_MOST - GROW_LEAST) * (overlap / worst);
      return [key, (weights.get(key) ?? 1) * factor];
    }),
  );
  for (const [key, weight] of weights) {
    const less = weight * DECAY;
    if (less <= 1) weights.delete(key);
    else weights.set(key, less);
  }
  for (const [key, weight] of grown) weights.set(key, weight);
}

interface Place {
  readonly u: number;
  readonly v: number;
  readonly angle: number;
}

/** Moves a piece to the best place that is found, if that is better than where it is. */
function movePiece(search: Search, i: number, now: number): void {
  const { places, pieces, random, turning, mates } = search;
  const here: Place = { u: places.u[i], v: places.v[i], angle: places.angle[i] };
  const size = places.scale[i] * Math.max(pieces[i].halfWidth, pieces[i].halfHeight);
  const tried: (Place & { overlap: number })[] = [{ ...here, overlap: now }];
  const tryAt = (place: Place): void => {
    const bound = tried.length > REFINED ? tried[REFINED].overlap : Infinity;
    const overlap = overlapAt(search, i, place, bound);
    if (overlap >= bound) return;
    let k = tried.length;
    while (k > 0 && tried[k - 1].overlap > overlap) k--;
    tried.splice(k, 0, { u: places.u[i], v: places.v[i], angle: places.angle[i], overlap });
    if (tried.length > REFINED + 1) tried.pop();
  };
  if (search.stay)
    for (let k = 0; k < ANYWHERE; k++) {
      // The nearest first: of places that are as good the first is kept.
      const far = 2 * size * ((k + random()) / ANYWHERE) ** 2;
      const way = 2 * Math.PI * random();
      tryAt({ u: here.u + far * Math.cos(way), v: here.v + far * Math.sin(way), angle: here.angle });
    }
  else {
    for (let k = 0; k < ANYWHERE; k++) {
      const angle = anyAngle(turning[i], random);
      if (!setPlace(search, i, { ...here, angle })) continue;
      tryAt({ ...(mates[i] ? nearMate(search, mates[i], size) : anywhere(search, i)), angle });
    }
    for (let k = 0; k < NEARBY; k++) {
      const far = size * 2 * random() ** 2;
      const way = 2 * Math.PI * random();
      tryAt({
        u: here.u + far * Math.cos(way),
        v: here.v + far * Math.sin(way),
        angle: random() < 0.5 ? here.angle : nearAngle(turning[i], here.angle, random),
      });
    }
  }
  let best = tried[0];
  for (const place of tried.slice(0, REFINED)) {
    const refined = refine(search, i, place, 0.2 * size, 0.02 * size);
    if (refined.overlap < best.overlap) best = refined;
    if (best.overlap === 0) break;
  }
  if (best.overlap > 0) best = refine(search, i, best, 0.02 * size, search.slack);
  setPlace(search, i, best.overlap < now ? best : here);
  search.collider.settled(i);
}

/** A place in the frame. */
function anywhere({ collider, random }: Search, i: number): Omit<Place, 'angle'> {
  const [left, low, right, high] = collider.range(i);
  return { u: left + random() * (right - left), v: low + random() * (high - low) };
}

/** A place beside one of the pieces near which this one is to lie. */
function nearMate(
  { places, pieces, random }: Search,
  mates: readonly number[],
  size: number,
): Omit<Place, 'angle'> {
  const mate = mates[Math.floor(random() * mates.length)];
  const { halfWidth, halfHeight } = pieces[mate];
  const far = size + places.scale[mate] * Math.max(halfWidth, halfHeight);
  return { u: places.u[mate] + (2 * random() - 1) * far, v: places.v[mate] + (2 * random() - 1) * far };
}

const oneOf = (angles: readonly number[], random: () => number): number =>
  angles[Math.floor(random() * angles.length)];

/** Any angle, but every other time one that is likely to do. */
const anyAngle = ({ angles, isFree }: Turning, random: () => number): number =>
  isFree && random() < 0.5 ? 2 * Math.PI * random() : oneOf(angles, random);

const nearAngle = (turning: Turning, angle: number, random: () => number): number =>
  turning.isFree && random() < 0.5 ? angle + (random() - 0.5) * WIDE : oneOf(turning.angles, random);

/** Width of the range round its angle in which a piece is tried nearby, radians. */
const WIDE = 0.5;

/** Puts a piece to a place, or to the nearest inside the frame; false where it does not fit so. */
function setPlace({ places, collider }: Search, i: number, { u, v, angle }: Place): boolean {
  places.angle[i] = angle;
  places.u[i] = u;
  places.v[i] = v;
  collider.moved(i);
  const [left, low, right, high] = collider.range(i);
  if (left > right || low > high) return false;
  const inU = Math.min(Math.max(u, left), right);
  const inV = Math.min(Math.max(v, low), high);
  if (inU !== u || inV !== v) {
    places.u[i] = inU;
    places.v[i] = inV;
    collider.moved(i);
  }
  return true;
}

/** Moves a piece that has grown into the frame, turned another way where it must be; false where it fits in no way. */
export function movedInside(search: Search, i: number): boolean {
  const { u, v, angle } = search.places;
  const here = { u: u[i], v: v[i], angle: angle[i] };
  const isInside =
    setPlace(search, i, here) ||
    anglesOf(search.turning[i]).some((other) => setPlace(search, i, { ...here, angle: other }));
  search.collider.settled(i);
  return isInside;
}

const overlapAt = (search: Search, i: number, place: Place, bound: number): number =>
  setPlace(search, i, place) ? search.collider.weightedOverlap(i, bound) : Infinity;

/** Pattern search from a place: along a line at a time, farther after a gain and half as far after none. */
function refine(
  search: Search,
  i: number,
  start: Place & { overlap: number },
  step: number,
  least: number,
): Place & { overlap: number } {
  const { random, places, turning } = search;
  let best = start;
  const size = places.scale[i] * Math.max(search.pieces[i].halfWidth, search.pieces[i].halfHeight);
  const ways = turning[i].isFree ? 5 : 4;
  for (let far = step; far > least && best.overlap > 0; ) {
    const way = Math.floor(random() * ways);
    const [du, dv, turn] = WAYS[way];
    let gained = false;
    for (const sign of [1, -1]) {
      const place = {
        u: best.u + sign * far * du,
        v: best.v + sign * far * dv,
        angle: best.angle + (sign * far * turn) / size,
      };
      const overlap = overlapAt(search, i, place, best.overlap);
      if (overlap < best.overlap) {
        best = { u: places.u[i], v: places.v[i], angle: places.angle[i], overlap };
        gained = true;
        break;
      }
    }
    far *= gained ? 1.1 : 0.6;
  }
  return best;
}

const WAYS = [
  [1, 0, 0],
  [0, 1, 0],
  [Math.SQRT1_2, Math.SQRT1_2, 0],
  [Math.SQRT1_2, -Math.SQRT1_2, 0],
  [0, 0, 1],
] as const;
