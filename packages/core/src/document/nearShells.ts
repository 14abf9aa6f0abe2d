import { nearGroups } from '../measure/nearness.ts';
import { segmentDistance } from '../measure/segmentDistance.ts';
import { segmentIndex } from '../measure/snapToBorders.ts';
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

/**
 * The shell that lies nearest to some others, by number, and how far it is.
 *
 * @param shells  by number
 * @param uv  of every corner, with those shells where they would lie
 * @param reach  one that is farther does not count, heights of a tile
 */
export function nearestShell(
  document: HemDocument,
  shells: readonly number[],
  uv: Float64Array,
  reach: number,
): { readonly shell: number; readonly far: number } | undefined {
  const { segments, shells: owners, index } = indexedBorders(document);
  if (!index) return undefined;
  const own = new Set(shells);
  let nearest: { readonly shell: number; readonly far: number } | undefined;
  for (const s of shells) {
    const border = flatBorder(document, s, uv);
    for (let i = 0; i < border.length; i += 4) {
      const [a, b, c, d] = border.subarray(i, i + 4);
      if (Number.isNaN(a + b + c + d)) continue;
      const wide = nearest?.far ?? reach;
      index.search(
        Math.min(a, c) - wide,
        Math.min(b, d) - wide,
        Math.max(a, c) + wide,
        Math.max(b, d) + wide,
        (j) => {
          if (own.has(owners[j])) return false;
          const far = segmentDistance(border, i, segments, 4 * j);
          if (far < (nearest?.far ?? reach)) nearest = { shell: owners[j], far };
          return false;
        },
      );
    }
  }
  return nearest;
}

const indices = new WeakMap<HemDocument, ReturnType<typeof indexBorders>>();

/** All borders of a document, worked out once for each. */
function indexedBorders(document: HemDocument): ReturnType<typeof indexBorders> {
  const known = indices.get(document) ?? indexBorders(document);
  indices.set(document, known);
  return known;
}

function indexBorders(document: HemDocument) {
  const { segments, shells } = borderSegments(document);
  return { segments, shells, index: segmentIndex(segments).boxes };
}
