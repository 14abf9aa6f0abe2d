import type { AreaTerm } from './distortion.ts';
import { farEnd, type Star, starEnergy } from './placeInStar.ts';

/** Where a vertex is tried: so far from its side of the coarser border toward the middle of what is empty beyond, and into the map. */
const OUTWARD = [0.9, 0.6, 0.35, 0.2, 0.1, 0.04, 0.01, 1e-3];
const INWARD = [0.4, 0.2, 0.1, 0.04, 0.01, 1e-3];

/** Halvings of the way from the neighbour before there must be room, and how far it leads off the star's first side. */
const [MOST_HALVINGS, MOST_TURN] = [48, 0.45 * Math.PI];

/** The two neighbours along the border of a vertex of a border, in the direction of the triangles beside it; undefined for one inside. */
export function borderNeighbours({ rim }: Star): readonly [before: number, after: number] | undefined {
  const [before, after] = [farEnd(rim, 0), farEnd(rim, 1)];
  return isOnce(rim, before) && isOnce(rim, after) ? [before, after] : undefined;
}

/**
 * Places a vertex of a border that comes back between two others, so that the map does not come to lie on itself: within the third of the empty
 * triangle beyond their side that is next to it, or within the map. Of some places there the one where its triangles have the least energy.
 *
 * @param middle  of the empty triangle
 * @param uv  `2 × vertexCount`, valid for the coarser mesh; receives the place
 * @returns whether there was one
 */
export function placeAtBorder(
  star: Star,
  [p, q]: readonly [number, number],
  [cx, cy]: readonly [number, number],
  uv: Float64Array,
  term: AreaTerm,
): boolean {
  const { vertex, rim, shapes } = star;
  const [px, py] = [uv[2 * p], uv[2 * p + 1]];
  const [dx, dy] = [uv[2 * q] - px, uv[2 * q + 1] - py];
  let [bx, by, best] = [0, 0, Infinity];
  const attempt = (x: number, y: number): void => {
    const value = starEnergy(uv, rim, shapes, x, y, term);
    if (value < best) [bx, by, best] = [x, y, value];
  };
  for (const along of [0.3, 0.5, 0.7]) {
    const [mx, my] = [px + along * dx, py + along * dy];
    for (const part of OUTWARD) attempt(mx + part * (cx - mx), my + part * (cy - my));
    // The map lies to the left.
    for (const part of INWARD) attempt(mx - part * dy, my + part * dx);
  }
  // Near enough to the neighbour that had taken its triangles over there is room within the map.
  for (let k = 0; k < MOST_HALVINGS && best === Infinity; k++)
    attempt(...besideNeighbour(star, [p, q], uv, 0.5 ** k));
  if (best === Infinity) return false;
  uv[2 * vertex] = bx;
  uv[2 * vertex + 1] = by;
  return true;
}

/** A place within the fan of the neighbour over the star, some part of its side of the border away. */
function besideNeighbour(
  { into, rim }: Star,
  [p, q]: readonly [number, number],
  uv: Float64Array,
  part: number,
): [number, number] {
  const [turning, other, w] =
    into === q ? [1, p, rim[rim.indexOf(q) + 1]] : [-1, q, rim[rim.lastIndexOf(p) - 1]];
  const [x, y] = [uv[2 * into], uv[2 * into + 1]];
  const toward = (v: number) => Math.atan2(uv[2 * v + 1] - y, uv[2 * v] - x);
  const from = toward(w);
  let turn = turning * (toward(other) - from);
  if (turn <= 0) turn += 2 * Math.PI;
  const angle = from + turning * Math.min(turn / 2, MOST_TURN);
  const length = part * Math.hypot(uv[2 * other] - x, uv[2 * other + 1] - y);
  return [x + length * Math.cos(angle), y + length * Math.sin(angle)];
}

const isOnce = (rim: readonly number[], v: number): boolean => rim.indexOf(v) === rim.lastIndexOf(v);
