import { distance } from '../mesh/distance.ts';
import type { Context } from '../progress.ts';
import { relax } from '../relax/relax.ts';
import { fillBorder } from '../relax/tutte.ts';
import { borders } from '../surface/borders.ts';
import { restTriangles } from '../surface/restTriangles.ts';
import type { Shell } from '../surface/shell.ts';
import { isLocallyInjective } from './isLocallyInjective.ts';
import { NotAStripError } from './straightRows.ts';

/** Steps by which the inside is evened out. */
const RELAX_STEPS = 60;
/** Part of the border over which a turn is gathered into a corner. */
const WINDOW = 0.05;
/** Least turn of a corner, radians: a half of a right angle. */
const TURN = Math.PI / 4;
/** Sides that face each other may differ by this factor. */
const MOST_APART = 3;

/**
 * Lays a shell with one border out as a rectangle: belts of whatever faces, and tubes that are cut lengthwise, which have their corners where the cut
 * meets the ends. Its sides are straight, as long as those that face each other are on average, and places on them keep their shares
 * of the length; what is inside is evened out between them.
 *
 * @returns UV of every vertex of the shell, `2 × vertexCount`, model units; the longer sides run along u
 * @throws NotAStripError
 */
export function rectangle(
  shell: Shell,
  mesh: { readonly cornerVertex: Uint32Array },
  context: Context,
): Float64Array {
  const { positions, triangles, triangleFace, vertexCorner } = shell;
  const { loops } = borders(triangles, positions.length / 3);
  const faces = [triangleFace[0]];
  if (loops.length !== 1) throw new NotAStripError([CLOSED, '', TUBE][loops.length] ?? MANY_BORDERS, faces);
  const [loop] = loops;
  const corners =
    cornersOfCut(loop, (v) => mesh.cornerVertex[vertexCorner[v]]) ?? cornersOfTurns(shell, loop);
  if (corners.length !== 4) throw new NotAStripError(cornersInWords(corners.length), faces);
  const sides = corners.map((from, i) => run(loop, from, corners[(i + 1) % 4]));
  const lengths = sides.map((side) => lengthOf(positions, side));
  for (const i of [0, 1]) {
    const [a, b] = [lengths[i], lengths[i + 2]];
    if (Math.max(a, b) > MOST_APART * Math.min(a, b)) throw new NotAStripError(APART, faces);
  }
  const across = [0.5 * (lengths[0] + lengths[2]), 0.5 * (lengths[1] + lengths[3])];
  // The longer sides go along u.
  const first = across[0] >= across[1] ? 0 : 1;
  const [width, height] = [across[first], across[1 - first]];
  const ends = [
    [0, 0],
    [width, 0],
    [width, height],
    [0, height],
  ];
  const placed = new Float64Array((2 * positions.length) / 3);
  for (let i = 0; i < 4; i++) {
    const side = sides[(first + i) % 4];
    const [[u0, v0], [u1, v1]] = [ends[i], ends[(i + 1) % 4]];
    const whole = lengthOf(positions, side) || 1;
    let at = 0;
    side.forEach((v, k) => {
      if (k > 0) at += distance(positions, side[k - 1], v);
      placed[2 * v] = u0 + (at / whole) * (u1 - u0);
      placed[2 * v + 1] = v0 + (at / whole) * (v1 - v0);
    });
  }
  const start = fillBorder(shell, placed, context.signal);
  const rest = restTriangles(positions, triangles);
  const onBorder = new Uint8Array(start.length / 2);
  for (const v of loop) onBorder[v] = 1;
  if (!isLocallyInjective(triangles, start, rest.area, onBorder)) {
    const flat = flatOnSide(triangles, start, triangleFace);
    throw new NotAStripError(flat.length > 0 ? ON_ONE_SIDE : FOLDS, flat.length > 0 ? flat : faces);
  }
  const relaxed = relax(shell, start, { fixed: onBorder, scale: 1, steps: RELAX_STEPS }, context);
  return relaxed.uv;
}

const CLOSED = 'This is closed: cut off its caps and cut it lengthwise, then it lies straight.';
const TUBE = 'This is a tube: cut it lengthwise, then it lies straight.';
const MANY_BORDERS = 'A strip has one border: close its holes, or cut it between them.';
const APART = 'This is no strip: sides that face each other are of very different length.';
const FOLDS = 'This shell folds when its sides are straight: it is no strip.';
const ON_ONE_SIDE =
  'Some faces have all their corners on one side and would collapse: cut them off, or move the seam by a row.';
const cornersInWords = (count: number): string =>
  `This is no strip: its border has ${count === 0 ? 'no corner' : count === 1 ? 'one corner' : `${count} corners`}, and a strip has four.`;

/** Places of the loop where a lengthwise cut meets the ends of a tube; undefined where there is no such cut. */
function cornersOfCut(loop: Uint32Array, modelVertex: (v: number) => number): number[] | undefined {
  const n = loop.length;
  const key = (i: number): string => {
    const [a, b] = [modelVertex(loop[i]), modelVertex(loop[(i + 1) % n])];
    return a < b ? `${a} ${b}` : `${b} ${a}`;
  };
  const times = new Map<string, number>();
  for (let i = 0; i < n; i++) times.set(key(i), (times.get(key(i)) ?? 0) + 1);
  const isCut = Array.from({ length: n }, (_, i) => times.get(key(i)) === 2);
  const corners: number[] = [];
  for (let i = 0; i < n; i++) if (isCut[i] !== isCut[(i + n - 1) % n]) corners.push(i);
  return corners.length === 4 ? corners : undefined;
}

/** Places of the loop where it turns most, as far as they are corners. */
function cornersOfTurns({ positions, triangles }: Shell, loop: Uint32Array): number[] {
  const n = loop.length;
  const inside = new Float64Array(positions.length / 3);
  for (let i = 0; i < triangles.length; i++) {
    const [a, b, c] = [
      triangles[i],
      triangles[i - (i % 3) + ((i + 1) % 3)],
      triangles[i - (i % 3) + ((i + 2) % 3)],
    ];
    inside[a] += angleAt(positions, a, b, c);
  }
  const turn = Float64Array.from(loop, (v) => Math.PI - inside[v]);
  const step = Float64Array.from(loop, (v, i) => distance(positions, v, loop[(i + 1) % n]));
  const whole = step.reduce((sum, x) => sum + x, 0);
  /** All that is turned near a place, on either side. */
  const near = Float64Array.from({ length: n }, (_, i) => {
    let sum = turn[i];
    for (const way of [1, -1])
      for (let k = i, far = 0; ; ) {
        far += step[way > 0 ? k : (k + n - 1) % n];
        k = (k + way + n) % n;
        if (far > 0.5 * WINDOW * whole || k === i) break;
        sum += turn[k];
      }
    return sum;
  });
  const places = [...near.keys()]
    .filter((i) => near[i] > TURN)
    .sort((a, b) => near[b] - near[a] || turn[b] - turn[a]);
  const along = new Float64Array(n);
  for (let i = 1; i < n; i++) along[i] = along[i - 1] + step[i - 1];
  const corners: number[] = [];
  for (const i of places) {
    const isFar = corners.every((j) => {
      const d = Math.abs(along[i] - along[j]);
      return Math.min(d, whole - d) > WINDOW * whole;
    });
    if (isFar) corners.push(i);
  }
  // Where several places share a turn, the sharpest of them is the corner.
  return corners.map((i) => sharpest(i)).sort((a, b) => a - b);

  function sharpest(i: number): number {
    let best = i;
    for (const way of [1, -1])
      for (let k = i, far = 0; ; ) {
        far += step[way > 0 ? k : (k + n - 1) % n];
        k = (k + way + n) % n;
        if (far > 0.5 * WINDOW * whole || k === i) break;
        if (turn[k] > turn[best] + 1e-9) best = k;
      }
    return best;
  }
}

function angleAt(p: Float64Array, a: number, b: number, c: number): number {
  let [dot, bb, cc] = [0, 0, 0];
  for (let k = 0; k < 3; k++) {
    const [x, y] = [p[3 * b + k] - p[3 * a + k], p[3 * c + k] - p[3 * a + k]];
    dot += x * y;
    bb += x * x;
    cc += y * y;
  }
  return Math.acos(Math.max(-1, Math.min(1, dot / (Math.sqrt(bb * cc) || 1))));
}

/** Vertices of the loop from one place to another, both included. */
function run(loop: Uint32Array, from: number, to: number): number[] {
  const found = [loop[from]];
  for (let i = from; i !== to; ) {
    i = (i + 1) % loop.length;
    found.push(loop[i]);
  }
  return found;
}

const lengthOf = (positions: Float64Array, side: readonly number[]): number =>
  side.reduce((sum, v, k) => (k > 0 ? sum + distance(positions, side[k - 1], v) : sum), 0);

/** Faces of triangles without any height. */
function flatOnSide(triangles: Uint32Array, uv: Float64Array, triangleFace: Uint32Array): number[] {
  const found = new Set<number>();
  for (let t = 0; t < triangleFace.length; t++) {
    const [a, b, c] = [0, 1, 2].map((k) => triangles[3 * t + k]);
    const sides = [0, 1].some(
      (axis) => uv[2 * a + axis] === uv[2 * b + axis] && uv[2 * a + axis] === uv[2 * c + axis],
    );
    if (sides) found.add(triangleFace[t]);
  }
  return [...found];
}
