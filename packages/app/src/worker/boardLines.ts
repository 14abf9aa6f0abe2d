import { NO_UV } from './protocol.ts';

/** Lines of the Board lie above the shells by so much. */
const BOARD_LINE_HEIGHT = 0.1;

/** Both sides of each edge, as far as they have UVs. */
export function boardLines(edgeUv: Float32Array, edges: readonly number[]): Float32Array {
  const lines = new Float32Array(12 * edges.length);
  let at = 0;
  for (const e of edges) {
    for (let i = 8 * e; i < 8 * e + 8; i += 4) {
      if (edgeUv[i] === NO_UV) continue;
      lines[at] = edgeUv[i];
      lines[at + 1] = edgeUv[i + 1];
      lines[at + 2] = BOARD_LINE_HEIGHT;
      lines[at + 3] = edgeUv[i + 2];
      lines[at + 4] = edgeUv[i + 3];
      lines[at + 5] = BOARD_LINE_HEIGHT;
      at += 6;
    }
  }
  return lines.subarray(0, at);
}
