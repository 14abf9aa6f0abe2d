import { HemError } from '../errors.ts';
import { distance } from '../mesh/distance.ts';
import type { Shell } from '../surface/shell.ts';

const ONLY_QUADS = 'Only quads make straight rows: cut the other faces off first.';

/** The shell cannot be laid out straight. */
export class NotAStripError extends HemError {
  constructor(sentence: string, faces: readonly number[]) {
    super('not-a-strip', sentence, faces);
    this.name = 'NotAStripError';
  }
}

/**
 * Lays a shell of quads out as straight rows and columns: pipes, treads, belts and hems, their caps cut off and one cut
 * lengthwise. Every row and column is as wide as its edges are long on average, so lengths stay in proportion.
 *
 * @param triangleFace  the names of its polygons, in their order
 * @returns UV of every vertex at those faces, `2 × vertexCount`, model units, NaN elsewhere; u runs across the first face's first edge
 * @throws NotAStripError with the faces in the way
 */
export function straightRows({
  positions,
  polygons,
  triangleFace,
}: Pick<Shell, 'positions' | 'polygons' | 'triangleFace'>): Float64Array {
  const names = [...new Set(triangleFace)];
  if (!polygons) throw new NotAStripError(ONLY_QUADS, names);
  const { faceStart, cornerVertex } = polygons;
  const faces = names.keys();
  const others = names.filter((_, f) => faceStart[f + 1] - faceStart[f] !== 4);
  if (others.length > 0) throw new NotAStripError(ONLY_QUADS, others);
  const vertexOf = (face: number, k: number): number => cornerVertex[faceStart[face] + (k & 3)];
  const all = Uint32Array.from(faces);
  const grid = gridPlaces(all, positions.length / 3, vertexOf, names);

  // Mean length of the edges in each row and column, from their vertices' places.
  const spans = [new Map<number, [number, number]>(), new Map<number, [number, number]>()];
  for (const f of all) {
    for (let k = 0; k < 4; k++) {
      const [a, b] = [vertexOf(f, k), vertexOf(f, k + 1)];
      const axis = grid[2 * a] === grid[2 * b] ? 1 : 0;
      const at = Math.min(grid[2 * a + axis], grid[2 * b + axis]);
      const span = spans[axis].get(at) ?? [0, 0];
      spans[axis].set(at, [span[0] + distance(positions, a, b), span[1] + 1]);
    }
  }
  const starts = spans.map(startsOf);
  const uv = new Float64Array((2 * positions.length) / 3);
  for (let i = 0; i < uv.length; i++) uv[i] = starts[i & 1].get(grid[i]) ?? NaN;
  return uv;
}

/** Whole-number place of every vertex, spread from face to face. */
function gridPlaces(
  faces: Uint32Array,
  vertexCount: number,
  vertexOf: (face: number, k: number) => number,
  names: readonly number[],
): Float64Array {
  const byEdge = new Map<number, [number, number][]>();
  const key = (a: number, b: number) => Math.min(a, b) * vertexCount + Math.max(a, b);
  for (const f of faces) {
    for (let k = 0; k < 4; k++) {
      const edge = key(vertexOf(f, k), vertexOf(f, k + 1));
      byEdge.set(edge, [...(byEdge.get(edge) ?? []), [f, k]]);
    }
  }
  const place = new Float64Array(2 * vertexCount).fill(NaN);
  const bent: number[] = [];
  const put = (face: number, v: number, x: number, y: number) => {
    if (Number.isNaN(place[2 * v])) {
      place[2 * v] = x;
      place[2 * v + 1] = y;
    } else if (place[2 * v] !== x || place[2 * v + 1] !== y) bent.push(face);
  };
  const seen = new Set([faces[0]]);
  const queue: [face: number, k: number, x: number, y: number, dx: number, dy: number][] = [
    [faces[0], 0, 0, 0, 1, 0],
  ];
  // A face with corner k at (x, y) and corner k + 1 in direction (dx, dy); its inside is to the left.
  for (let next = queue.pop(); next; next = queue.pop()) {
    let [f, k, x, y, dx, dy] = next;
    for (let side = 0; side < 4; side++, k++) {
      put(f, vertexOf(f, k), x, y);
      for (const [other, j] of byEdge.get(key(vertexOf(f, k), vertexOf(f, k + 1))) as [number, number][]) {
        if (seen.has(other)) continue;
        seen.add(other);
        queue.push([other, j, x + dx, y + dy, -dx, -dy]);
      }
      [x, y] = [x + dx, y + dy];
      [dx, dy] = [-dy, dx];
    }
  }
  if (seen.size < faces.length)
    throw new NotAStripError(
      'These faces do not all hang together edge to edge: choose one grid of them.',
      [...faces].filter((f) => !seen.has(f)).map((f) => names[f]),
    );
  if (bent.length > 0) {
    throw new NotAStripError(
      'These faces do not lie in straight rows: cut a tube lengthwise, and cut off caps and places where other than four faces meet.',
      bent.map((f) => names[f]),
    );
  }
  return place;
}

/** Where each row or column begins, from the mean lengths of those before. */
function startsOf(spans: Map<number, [sum: number, count: number]>): Map<number, number> {
  const starts = new Map<number, number>();
  let at = 0;
  for (const i of [...spans.keys()].sort((a, b) => a - b)) {
    starts.set(i, at);
    const [sum, count] = spans.get(i) as [number, number];
    at += sum / count;
    starts.set(i + 1, at);
  }
  return starts;
}
