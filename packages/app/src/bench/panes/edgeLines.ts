import { type FlatBuffers, type ModelBuffers, NO_UV, NOWHERE } from '../../worker/protocol.ts';

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

/** Both sides of edges in the flat, as far as they have UVs; one that is no seam has its two sides in one place. */
export function linesOnBoard(
  { edgeEnds }: ModelBuffers,
  uv: Float32Array,
  edges: Iterable<number>,
): Float32Array {
  const list = [...edges];
  const lines = new Float32Array(12 * list.length);
  let at = 0;
  for (const e of list) {
    for (let side = 4 * e; side < 4 * e + 4; side += 2) {
      const [a, b] = [edgeEnds[side], edgeEnds[side + 1]];
      if (a === NOWHERE || uv[2 * a] === NO_UV || uv[2 * b] === NO_UV) continue;
      lines[at] = uv[2 * a];
      lines[at + 1] = uv[2 * a + 1];
      lines[at + 2] = BOARD_LINE_HEIGHT;
      lines[at + 3] = uv[2 * b];
      lines[at + 4] = uv[2 * b + 1];
      lines[at + 5] = BOARD_LINE_HEIGHT;
      at += 6;
    }
  }
  return lines.subarray(0, at);
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
