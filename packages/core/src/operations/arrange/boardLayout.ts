import { keepsPlaces } from '../../document/constraints.ts';
import { current, type HemDocument } from '../../document/document.ts';
import { cornerUv, type UvChange, uvDifference } from '../../document/uvChange.ts';
import type { Shell } from '../../surface/shell.ts';
import { bestTurn, transformUv } from '../../surface/similarity.ts';
import { boxOf } from '../../surface/uvBox.ts';
import { layAfresh, parkingU } from './layAfresh.ts';
import { settle } from './settle.ts';

export interface BoardLayout {
  readonly change: UvChange;
  /** UV of every corner as it leaves them. */
  readonly corners: Float64Array;
  readonly notes: readonly string[];
}

/**
 * Where shells go that an act has laid flat anew. Until the artist has placed or holds shells, all of them are laid out afresh, clear of
 * one another and inside the tile. From then on shells keep their places as far as they are clear and in the tile there; see `settle`.
 *
 * @param uvOf  new UVs of shells, by number, where and as large as they would lie by themselves
 * @param firm  those of shells that must lie where they are given
 */
export function onBoard(
  document: HemDocument,
  uvOf: ReadonlyMap<number, Float64Array>,
  firm: ReadonlyMap<number, Float64Array> = new Map(),
): BoardLayout {
  const corners = cornerUv(document, new Map([...uvOf, ...firm]));
  const notes: string[] = [];
  if (keepsPlaces(document) || firm.size > 0) notes.push(...settle(document, corners, uvOf, firm));
  else if (uvOf.size > 0) notes.push(...layAfresh(document, corners));
  return { change: uvDifference(document, corners), corners, notes };
}

/**
 * A map at the texture scale of the rest, turned and moved to where its shell lies now; one that has no place yet stays as it is
 * turned and goes beside the tile.
 */
export function nearOldPlace(
  document: HemDocument,
  shell: Shell,
  uv: Float64Array,
  density: number,
): Float64Array {
  const { uv: old } = current(document);
  const before = new Float64Array(uv.length);
  shell.vertexCorner.forEach((c, v) => {
    before[2 * v] = old[2 * c];
    before[2 * v + 1] = old[2 * c + 1];
  });
  if (before.every(Number.isNaN)) {
    const upright = transformUv(uv, [density, 0, 0, density, 0, 0]);
    const [minU, minV] = boxOf(upright);
    return transformUv(upright, [1, 0, 0, 1, parkingU(document) - minU, -minV]);
  }
  return transformUv(uv, bestTurn(uv, before, density));
}
