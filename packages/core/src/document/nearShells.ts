import { nearGroups } from '../measure/nearness.ts';
import type { StopSignal } from '../progress.ts';
import { type HemDocument, shellsOf, topologyOf } from './document.ts';

/**
 * Pairs of shells that lie nearer to one another than a gap, tile widths: two numbers a pair, the smaller first.
 *
 * @throws StoppedError
 */
export function nearShells(document: HemDocument, gap: number, signal?: StopSignal): Uint32Array {
  const { joined, cornerEdge, cornerFace, nextCorner } = topologyOf(document.model).links;
  const { uv } = document.uvSets[document.currentUv];
  const { faceShell } = shellsOf(document);
  // Every side of a seam or a border of the file that has UVs.
  const segments: number[] = [];
  const shells: number[] = [];
  for (let c = 0; c < cornerEdge.length; c++) {
    const e = cornerEdge[c];
    const d = nextCorner[c];
    if ((joined[e] && !document.seams[e]) || Number.isNaN(uv[2 * c] + uv[2 * d])) continue;
    segments.push(uv[2 * c], uv[2 * c + 1], uv[2 * d], uv[2 * d + 1]);
    shells.push(faceShell[cornerFace[c]]);
  }
  return nearGroups(Float64Array.from(segments), Uint32Array.from(shells), gap, signal);
}
