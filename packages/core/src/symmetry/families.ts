import { bucket, type Connectivity } from '../mesh/connectivity.ts';
import { disjointSets, numberSets, unite } from '../mesh/disjointSets.ts';
import type { Mesh } from '../mesh/mesh.ts';
import { faceCount } from '../mesh/mesh.ts';
import { type Context, heedStop } from '../progress.ts';
import { type SameShape, sameShape } from './sameShape.ts';

/** A piece and those that are the same shape. */
export interface Family {
  /** Faces of the first of them. */
  readonly faces: Uint32Array;
  readonly copies: readonly (SameShape & { readonly faces: Uint32Array })[];
}

/**
 * Pieces of a mesh that equal one another but for place, turn, mirror, scale and numbers; only those of which there are several.
 *
 * @param tolerance  part of the size of a piece by which lengths may differ
 * @throws StoppedError
 */
export function families(
  mesh: Mesh,
  connectivity: Connectivity,
  tolerance: number,
  signal?: Context['signal'],
): Family[] {
  const pieces = piecesOf(mesh, connectivity);
  const found: { faces: Uint32Array; copies: Family['copies'][number][] }[] = [];
  for (const faces of pieces) {
    heedStop(signal);
    let isNew = true;
    for (const family of found) {
      const same = sameShape(mesh, connectivity, family.faces, faces, tolerance);
      if (!same) continue;
      family.copies.push({ ...same, faces });
      isNew = false;
      break;
    }
    if (isNew) found.push({ faces, copies: [] });
  }
  return found.filter(({ copies }) => copies.length > 0).sort((a, b) => b.copies.length - a.copies.length);
}

/** Faces that hang together over interior edges. */
function piecesOf(
  mesh: Mesh,
  { isInterior, edgeCorners, edgeCornerStart, cornerFace }: Connectivity,
): Uint32Array[] {
  const sets = disjointSets(faceCount(mesh));
  for (let e = 0; e < isInterior.length; e++) {
    if (!isInterior[e]) continue;
    unite(sets, cornerFace[edgeCorners[edgeCornerStart[e]]], cornerFace[edgeCorners[edgeCornerStart[e] + 1]]);
  }
  const { label, count } = numberSets(sets);
  const { start, items } = bucket(label, count);
  return Array.from({ length: count }, (_, p) => items.slice(start[p], start[p + 1]));
}
