import { distance } from '../mesh/distance.ts';
import type { Context } from '../progress.ts';
import { borders } from '../surface/borders.ts';
import type { Shell } from '../surface/shell.ts';
import { fillAndRelax } from './fillAndRelax.ts';
import { placeOnRectangle, sidesOfRectangle } from './placeOnRectangle.ts';
import { NotAStripError } from './straightRows.ts';

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
  if (corners.length !== 4)
    throw new NotAStripError(`This is no strip: ${cornersInWords(corners.length)}`, faces);
  const sides = sidesOfRectangle(positions, loop, corners);
  if (sides.apart > MOST_APART) throw new NotAStripError(APART, faces);
  const found = fillAndRelax(shell, loop, placeOnRectangle(positions, sides), context);
  if ('uv' in found) return found.uv;
  const { collapsed } = found;
  throw collapsed.length > 0 ? new NotAStripError(ON_ONE_SIDE, collapsed) : new NotAStripError(FOLDS, faces);
}

const CLOSED = 'This is closed: cut off its caps and cut it lengthwise, then it lies straight.';
const TUBE = 'This is a tube: cut it lengthwise, then it lies straight.';
const MANY_BORDERS = 'A strip has one border: close its holes, or cut it between them.';
const APART = 'This is no strip: sides that face each other are of very different length.';
const FOLDS = 'This shell folds when its sides are straight: it is no strip.';
export const ON_ONE_SIDE =
  'Some faces have all their corners on one side and would collapse: cut them off, or move the seam by a row.';
/** “its border has three corners, and a strip has four.” */
export const cornersInWords = (count: number): string =>
  `its border has ${count === 0 ? 'no corner' : count === 1 ? 'one corner' : `${count} corners`}, and a rectangle has four.`;

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
export function cornersOfTurns({ positions, triangles }: Shell, loop: Uint32Array): number[] {
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
