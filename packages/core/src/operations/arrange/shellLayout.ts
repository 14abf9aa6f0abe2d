import Flatbush from 'flatbush';
import { findRoom } from '../../arrange/findRoom.ts';
import type { FlatShell } from '../../arrange/packShells.ts';
import { type HemDocument, shellsOf } from '../../document/document.ts';
import { densityOf, flatTriangles, shellBoxes } from '../../document/layout.ts';
import { shellsOverlap } from '../../measure/overlap.ts';
import type { Shell } from '../../surface/shell.ts';
import { bestTurn, transformUv } from '../../surface/similarity.ts';
import { boxesMeet, boxOf, type UvBox } from '../../surface/uvBox.ts';
import type { OperationContext } from '../operation.ts';
import { flatShell, placed } from './placement.ts';

/** Between a shell that had to give way and its neighbours, tile widths. */
const GAP = 0.004;

/** A shell and its map, as a solver gave it: model units, upright. */
export interface FlatMap {
  readonly shell: Shell;
  readonly uv: Float64Array;
}

/**
 * Where newly unfolded shells go: where they were, at the texture scale of the rest, but clear of others; the first
 * shells of a model are packed into the tile.
 *
 * @returns UV of each shell, by number
 */
export async function layOut(
  document: HemDocument,
  solved: ReadonlyMap<number, FlatMap>,
  context: OperationContext,
): Promise<Map<number, Float64Array>> {
  if (solved.size === 0) return new Map();
  const density = densityOf(document);
  if (density === undefined) return firstLayout(solved, context);

  // Shells that stay as they are, then the new ones from the largest down, each giving way to those before.
  const taken = ground(document, solved);
  const uvOf = new Map<number, Float64Array>();
  const bySize = [...solved].sort(
    (a, b) => b[1].shell.triangles.length - a[1].shell.triangles.length || a[0] - b[0],
  );
  for (const [s, { shell, uv }] of bySize) {
    let near = nearOldPlace(document, shell, uv, density);
    const box = boxOf(near);
    if (taken.isCovered(box, flatShell(shell.triangles, near))) {
      const [mu, mv] = findRoom(box, taken.boxes(), GAP);
      near = transformUv(near, [1, 0, 0, 1, mu, mv]);
    }
    taken.add(boxOf(near), flatShell(shell.triangles, near));
    uvOf.set(s, near);
  }
  return uvOf;
}

/** What lies on the Board already: the shells that stay, in a spatial index, and those put beside them. */
function ground(document: HemDocument, moving: ReadonlyMap<number, unknown>) {
  const boxes = shellBoxes(document);
  const staying = Array.from({ length: shellsOf(document).shellCount }, (_, s) => s).filter(
    (s) => boxes[s] && !moving.has(s),
  );
  const index = staying.length > 0 ? new Flatbush(staying.length, 16, Float64Array) : undefined;
  for (const s of staying) index?.add(...(boxes[s] as UvBox));
  index?.finish();
  const added: { readonly box: UvBox; readonly flat: FlatShell }[] = [];
  return {
    boxes: (): UvBox[] => [...staying.map((s) => boxes[s] as UvBox), ...added.map(({ box }) => box)],
    isCovered(box: UvBox, flat: FlatShell): boolean {
      const near = index?.search(...box) ?? [];
      return (
        near.some((i) => shellsOverlap(flat, flatTriangles(document, staying[i]))) ||
        added.some((other) => boxesMeet(box, other.box) && shellsOverlap(flat, other.flat))
      );
    },
    add(box: UvBox, flat: FlatShell): void {
      added.push({ box, flat });
    },
  };
}

async function firstLayout(
  solved: ReadonlyMap<number, FlatMap>,
  context: OperationContext,
): Promise<Map<number, Float64Array>> {
  const entries = [...solved];
  const shells = entries.map(([, { shell, uv }]) => flatShell(shell.triangles, uv));
  const options = { size: 2048, padding: 8, turning: 'none' } as const;
  const placements = await context.jobs.run('pack', { shells, options }, context);
  return new Map(entries.map(([s, { uv }], i) => [s, placed(uv, placements[i])]));
}

/** A map turned and moved to where its shell lies now; one that has no place yet goes beside the tile. */
export function nearOldPlace(
  document: HemDocument,
  shell: Shell,
  uv: Float64Array,
  density: number,
): Float64Array {
  const { uv: old } = document.uvSets[document.currentUv];
  const before = new Float64Array(uv.length);
  shell.vertexCorner.forEach((c, v) => {
    before[2 * v] = old[2 * c];
    before[2 * v + 1] = old[2 * c + 1];
  });
  if (before.every(Number.isNaN)) {
    const upright = transformUv(uv, [density, 0, 0, density, 0, 0]);
    const [minU, minV] = boxOf(upright);
    return transformUv(upright, [1, 0, 0, 1, 1.03 - minU, -minV]);
  }
  return transformUv(uv, bestTurn(uv, before, density));
}
