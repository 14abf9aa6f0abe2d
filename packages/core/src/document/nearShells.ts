import { nearGroups } from '../measure/nearness.ts';
import type { StopSignal } from '../progress.ts';
import { facesOfShell } from '../surface/shells.ts';
import { tileOf, tooNearAt } from '../surface/tiles.ts';
import { current, type HemDocument, shellsOf, topologyOf } from './document.ts';
import { shellBoxes } from './layout.ts';

/**
 * Pairs of shells that lie nearer to one another than the padding of the tile they are in: two numbers a pair, the smaller first. Those of
 * different tiles lie on different textures; those of none count as in the first.
 *
 * @throws StoppedError
 */
export function nearShells(document: HemDocument, signal?: StopSignal): Uint32Array {
  const { tiles } = document;
  const { segments, shells } = borderSegments(document);
  if (tiles.length === 1) return nearGroups(segments, shells, tooNearAt(tiles[0]), signal);
  const homes = shellBoxes(document).map((box) => (box && tileOf(tiles, box)) ?? tiles[0]);
  const near = tiles.flatMap((tile) => {
    const own = [...shells.keys()].filter((i) => homes[shells[i]] === tile);
    const ends = Float64Array.from(own.flatMap((i) => [...segments.subarray(4 * i, 4 * i + 4)]));
    return [
      ...nearGroups(
        ends,
        Uint32Array.from(own, (i) => shells[i]),
        tooNearAt(tile),
        signal,
      ),
    ];
  });
  return Uint32Array.from(near);
}

/** Both ends of every side of a seam or a border of the file that has UVs, `4 × count`, and the shell of each. */
function borderSegments(document: HemDocument): {
  readonly segments: Float64Array;
  readonly shells: Uint32Array;
} {
  const { isInterior, cornerEdge, cornerFace, nextCorner } = topologyOf(document.model).connectivity;
  const { uv } = current(document);
  const { faceShell } = shellsOf(document);
  const segments: number[] = [];
  const shells: number[] = [];
  for (let c = 0; c < cornerEdge.length; c++) {
    const e = cornerEdge[c];
    const d = nextCorner[c];
    if ((isInterior[e] && !document.seams[e]) || Number.isNaN(uv[2 * c] + uv[2 * d])) continue;
    segments.push(uv[2 * c], uv[2 * c + 1], uv[2 * d], uv[2 * d + 1]);
    shells.push(faceShell[cornerFace[c]]);
  }
  return { segments: Float64Array.from(segments), shells: Uint32Array.from(shells) };
}

/**
 * The border of one shell as it lies: both ends of each segment, `4 × count`.
 *
 * @param uv  of every corner
 */
export function flatBorder(document: HemDocument, shell: number, uv: Float64Array): Float64Array {
  const { isInterior, cornerEdge, nextCorner } = topologyOf(document.model).connectivity;
  const { faceStart } = document.model.mesh;
  const segments: number[] = [];
  for (const f of facesOfShell(shellsOf(document), shell))
    for (let c = faceStart[f]; c < faceStart[f + 1]; c++) {
      const d = nextCorner[c];
      if (!isInterior[cornerEdge[c]] || document.seams[cornerEdge[c]])
        segments.push(uv[2 * c], uv[2 * c + 1], uv[2 * d], uv[2 * d + 1]);
    }
  return Float64Array.from(segments);
}
