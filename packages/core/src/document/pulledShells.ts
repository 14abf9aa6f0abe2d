import { distanceFrom } from '../surface/distanceFrom.ts';
import type { UvMatrix } from '../surface/similarity.ts';
import { type HemDocument, shellOf, shellsOf, shellUv, topologyOf } from './document.ts';

/** How the pull of a hand lessens with the distance from the points that it holds. */
export const FALLOFFS = ['smooth', 'linear'] as const;
export type Falloff = (typeof FALLOFFS)[number];

/** How much of a move each vertex of a shell takes, 0 to 1, and where it lies now. */
export interface PulledShell {
  readonly s: number;
  readonly uv: Float64Array;
  readonly weights: Float64Array;
}

/**
 * Shells of which some points are held, and how far each vertex of them goes along.
 *
 * @param corners  one of each point that is held
 * @param radius  distance on the Board, along the surface, at which nothing moves any more, heights of a tile; 0 where the points move alone
 */
export function pulledShells(
  document: HemDocument,
  corners: readonly number[],
  radius: number,
  falloff: Falloff,
): PulledShell[] {
  const { faceShell, cornerWedge, wedgeStart } = shellsOf(document);
  const { cornerFace } = topologyOf(document.model).connectivity;
  const held = new Map<number, number[]>();
  for (const c of corners) {
    const s = faceShell[cornerFace[c]];
    held.set(s, [...(held.get(s) ?? []), cornerWedge[c] - wedgeStart[s]]);
  }
  return [...held].flatMap(([s, vertices]) => {
    const shell = shellOf(document, s);
    const uv = shellUv(document, shell);
    return uv ? [{ s, uv, weights: weightsOf(shell.triangles, uv, vertices, radius, falloff) }] : [];
  });
}

function weightsOf(
  triangles: Uint32Array,
  uv: Float64Array,
  held: readonly number[],
  radius: number,
  falloff: Falloff,
): Float64Array {
  const weights = new Float64Array(uv.length / 2);
  if (radius > 0) {
    const flat = Float64Array.from({ length: 3 * weights.length }, (_, i) =>
      i % 3 < 2 ? uv[2 * Math.floor(i / 3) + (i % 3)] : 0,
    );
    distanceFrom(flat, triangles, held).forEach((far, v) => {
      const part = Math.max(0, 1 - far / radius);
      weights[v] = falloff === 'linear' ? part : part * part * (3 - 2 * part);
    });
  }
  for (const v of held) weights[v] = 1;
  return weights;
}

/** UVs of a shell of which points are moved by a map of the flat, and the others as far along the way as they take part. */
export const pulledUv = ({ uv, weights }: PulledShell, [a, b, c, d, e, f]: UvMatrix): Float64Array =>
  uv.map((x, i) => {
    const [u, v] = [uv[i - (i % 2)], uv[i - (i % 2) + 1]];
    // What only moves comes to lie by its move, to the last bit.
    const by = i % 2 === 0 ? (a - 1) * u + c * v + e : b * u + (d - 1) * v + f;
    return x + weights[i >> 1] * by;
  });
