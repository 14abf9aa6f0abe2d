import type { ModelBuffers } from '../../worker/protocol.ts';

/** Edges with a chosen face on one side and none on the other. */
export function outlineOf(
  { edgeFaces }: Pick<ModelBuffers, 'edgeFaces'>,
  faces: ReadonlySet<number>,
): number[] {
  if (faces.size === 0) return [];
  const edges: number[] = [];
  for (let e = 0; 2 * e < edgeFaces.length; e++) {
    const [a, b] = [edgeFaces[2 * e], edgeFaces[2 * e + 1]];
    if (a === b ? faces.has(a) : faces.has(a) !== faces.has(b)) edges.push(e);
  }
  // A closed piece has no outline: all of its edges stand for it.
  if (edges.length > 0) return edges;
  for (let e = 0; 2 * e < edgeFaces.length; e++) if (faces.has(edgeFaces[2 * e])) edges.push(e);
  return edges;
}

/** Edges of which at least one face is shown. */
export function visibleWires(
  { edgePositions, edgeFaces }: Pick<ModelBuffers, 'edgePositions' | 'edgeFaces'>,
  hidden: Uint8Array,
): Float32Array {
  if (!hidden.includes(1)) return edgePositions;
  const out = new Float32Array(edgePositions.length);
  let at = 0;
  for (let e = 0; 2 * e < edgeFaces.length; e++) {
    if (hidden[edgeFaces[2 * e]] && hidden[edgeFaces[2 * e + 1]]) continue;
    out.set(edgePositions.subarray(6 * e, 6 * e + 6), at);
    at += 6;
  }
  return out.slice(0, at);
}
