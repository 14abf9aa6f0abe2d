import { type FlatBuffers, type ModelBuffers, NO_UV, NOWHERE } from '../../worker/protocol.ts';
import type { DrawnUv } from './drawnUv.ts';

/** Lines of the Board lie above the shells by so much. */
const BOARD_LINE_HEIGHT = 0.1;

/** xyz of both ends of edges on the model: `6 × edges`. */
export function linesOnModel({ edgeEnds, positions }: ModelBuffers, edges: Iterable<number>): Float32Array {
  const list = [...edges];
  const lines = new Float32Array(6 * list.length);
  list.forEach((e, i) => {
    for (let end = 0; end < 2; end++) {
      const at = 3 * edgeEnds[4 * e + end];
      for (let k = 0; k < 3; k++) lines[6 * i + 3 * end + k] = positions[at + k];
    }
  });
  return lines;
}

/**
 * One side of edges in the flat, as far as it has UVs.
 *
 * @returns xyz of both ends of every line, the drawn vertices there, and for each the place of its edge in the list
 */
export function sideOnBoard(
  { edgeEnds }: Pick<ModelBuffers, 'edgeEnds'>,
  uv: Float32Array,
  edges: ArrayLike<number>,
  side: 0 | 1,
): { readonly lines: Float32Array; readonly from: Uint32Array; readonly ends: Uint32Array } {
  const lines = new Float32Array(6 * edges.length);
  const from = new Uint32Array(edges.length);
  const ends = new Uint32Array(2 * edges.length);
  let count = 0;
  for (let i = 0; i < edges.length; i++) {
    const at = 4 * edges[i] + 2 * side;
    const [a, b] = [edgeEnds[at], edgeEnds[at + 1]];
    if (a === NOWHERE || uv[2 * a] === NO_UV || uv[2 * b] === NO_UV) continue;
    const to = 6 * count;
    lines[to] = uv[2 * a];
    lines[to + 1] = uv[2 * a + 1];
    lines[to + 2] = BOARD_LINE_HEIGHT;
    lines[to + 3] = uv[2 * b];
    lines[to + 4] = uv[2 * b + 1];
    lines[to + 5] = BOARD_LINE_HEIGHT;
    ends[2 * count] = a;
    ends[2 * count + 1] = b;
    from[count++] = i;
  }
  return {
    lines: lines.slice(0, 6 * count),
    from: from.slice(0, count),
    ends: ends.slice(0, 2 * count),
  };
}

/** Both sides of edges in the flat; one that is no seam has its two sides in one place. */
export function linesOnBoard(
  model: Pick<ModelBuffers, 'edgeEnds'>,
  uv: Float32Array,
  edges: Iterable<number>,
): Float32Array {
  const list = [...edges];
  const [a, b] = ([0, 1] as const).map((side) => sideOnBoard(model, uv, list, side).lines);
  return concatenate(a, b);
}

/**
 * Writes where drawn vertices lie in the flat over the ends of lines, as far as they are of triangles that have changed.
 *
 * @returns the first line that was written, and how many from there on
 */
export const moveOnBoard =
  ({ uv, changed }: Pick<DrawnUv, 'uv' | 'changed'>, ends: Uint32Array) =>
  (lines: Float32Array): readonly [first: number, count: number] => {
    const [from, to] = [3 * changed.from, 3 * changed.to];
    let [first, last] = [ends.length, -1];
    for (let i = 0; i < ends.length; i++) {
      const at = ends[i];
      if (at < from || at >= to) continue;
      lines[3 * i] = uv[2 * at];
      lines[3 * i + 1] = uv[2 * at + 1];
      if (first > i) first = i;
      last = i;
    }
    return last < 0 ? [0, 0] : [first >> 1, (last >> 1) - (first >> 1) + 1];
  };

export function concatenate<T extends Float32Array | Uint32Array>(a: T, b: T): T {
  const both = new (a.constructor as new (length: number) => T)(a.length + b.length);
  both.set(a);
  both.set(b, a.length);
  return both;
}

/** Edges with a chosen face on one side and none on the other. */
export function outlineOf(
  { edgeEnds, triangleFace }: Pick<ModelBuffers, 'edgeEnds' | 'triangleFace'>,
  faces: ReadonlySet<number>,
): number[] {
  if (faces.size === 0) return [];
  const isChosen = (end: number) => end !== NOWHERE && faces.has(triangleFace[Math.floor(end / 3)]);
  const edges: number[] = [];
  const inside: number[] = [];
  for (let e = 0; 4 * e < edgeEnds.length; e++) {
    const [a, b] = [isChosen(edgeEnds[4 * e]), isChosen(edgeEnds[4 * e + 2])];
    if (a !== b) edges.push(e);
    else if (a) inside.push(e);
  }
  // A closed piece has no outline: all of its edges stand for it.
  return edges.length > 0 ? edges : inside;
}

/**
 * Edges with something selected on one side and nothing, or another shell that is not, on the other; where the mesh ends too.
 *
 * @returns edges whose first side is selected, and edges whose second is
 */
export function rimOf(
  { edgeEnds, triangleFace }: Pick<ModelBuffers, 'edgeEnds' | 'triangleFace'>,
  faceShell: Uint32Array,
  faces: ReadonlySet<number>,
  chosen: ReadonlySet<number>,
): readonly [number[], number[]] {
  if (faces.size + chosen.size === 0) return [[], []];
  const isIn = (end: number): boolean => {
    if (end === NOWHERE) return false;
    const f = triangleFace[Math.floor(end / 3)];
    return chosen.has(faceShell[f]) || faces.has(f);
  };
  const [first, second]: [number[], number[]] = [[], []];
  for (let e = 0; 4 * e < edgeEnds.length; e++) {
    const [a, b] = [isIn(edgeEnds[4 * e]), isIn(edgeEnds[4 * e + 2])];
    if (a !== b) (a ? first : second).push(e);
  }
  return [first, second];
}

/** Drawn vertices at both ends of every edge, of the side that is shown where only one is: `2 × edges`. */
export function wireEnds(
  { edgeEnds, triangleFace }: Pick<ModelBuffers, 'edgeEnds' | 'triangleFace'>,
  hidden: Uint8Array,
): Uint32Array {
  const some = hidden.includes(1);
  const isHidden = (end: number) => end === NOWHERE || hidden[triangleFace[Math.floor(end / 3)]] === 1;
  const wires = new Uint32Array(edgeEnds.length / 2);
  let at = 0;
  for (let i = 0; i < edgeEnds.length; i += 4) {
    const side = some && isHidden(edgeEnds[i]) ? i + 2 : i;
    if (edgeEnds[side] === NOWHERE || (some && isHidden(edgeEnds[side]))) continue;
    wires[at] = edgeEnds[side];
    wires[at + 1] = edgeEnds[side + 1];
    at += 2;
  }
  return at === wires.length ? wires : wires.slice(0, at);
}

/** Seams with a face that is shown, still chained. */
export function shownChains(
  model: ModelBuffers,
  hidden: Uint8Array,
  { seams, seamBreaks }: Pick<FlatBuffers, 'seams' | 'seamBreaks'>,
): { readonly edges: Uint32Array; readonly breaks: Uint8Array } {
  if (!hidden.includes(1)) return { edges: seams, breaks: seamBreaks };
  const shown = new Set(shownEdges(model, hidden, seams));
  const kept = [...seams.keys()].filter((i) => shown.has(seams[i]));
  return {
    edges: Uint32Array.from(kept, (i) => seams[i]),
    breaks: Uint8Array.from(kept, (i, k) => (seamBreaks[i] || kept[k - 1] !== i - 1 ? 1 : 0)),
  };
}

/** Of a list of edges those with a face that is shown. */
export function shownEdges(
  { edgeEnds, triangleFace }: ModelBuffers,
  hidden: Uint8Array,
  edges: FlatBuffers['seams'],
): Uint32Array {
  if (!hidden.includes(1)) return edges;
  const isShown = (end: number) => end !== NOWHERE && !hidden[triangleFace[Math.floor(end / 3)]];
  return edges.filter((e) => isShown(edgeEnds[4 * e]) || isShown(edgeEnds[4 * e + 2]));
}
