import { type Box, boxesMeet, findRoom } from '../arrange/findRoom.ts';
import { type FlatShell, packShells } from '../arrange/packShells.ts';
import { type HemDocument, shellOf, shellsOf, shellUv } from '../document/document.ts';
import { boxOf } from '../document/figures.ts';
import { shellsOverlap } from '../measure/overlap.ts';
import type { Context } from '../progress.ts';
import { surfaceArea } from '../surface/areas.ts';
import { signedArea } from '../surface/flatArea.ts';
import type { Shell } from '../surface/shell.ts';
import { bestTurn, transformUv } from '../surface/similarity.ts';
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
export function layOut(
  document: HemDocument,
  solved: ReadonlyMap<number, FlatMap>,
  context: Context,
): Map<number, Float64Array> {
  const density = densityOf(document);
  if (density === undefined) return firstLayout(solved, context);

  // Shells that stay as they are, then the new ones from the largest down, each giving way to those before.
  const taken: { readonly box: Box; readonly flat: FlatShell }[] = [];
  for (let s = 0; s < shellsOf(document).shellCount; s++) {
    if (solved.has(s)) continue;
    const shell = shellOf(document, s);
    const uv = shellUv(document, shell);
    if (uv) taken.push({ box: boxOf(uv), flat: flatShell(shell.triangles, uv) });
  }
  const uvOf = new Map<number, Float64Array>();
  const bySize = [...solved].sort(
    (a, b) => b[1].shell.triangles.length - a[1].shell.triangles.length || a[0] - b[0],
  );
  for (const [s, { shell, uv }] of bySize) {
    let near = nearOldPlace(document, shell, uv, density);
    const [box, flat] = [boxOf(near), flatShell(shell.triangles, near)];
    if (taken.some((other) => boxesMeet(box, other.box) && shellsOverlap(flat, other.flat))) {
      const others = taken.map((other) => other.box);
      const [mu, mv] = findRoom(box, others, GAP);
      near = transformUv(near, [1, 0, 0, 1, mu, mv]);
    }
    taken.push({ box: boxOf(near), flat: flatShell(shell.triangles, near) });
    uvOf.set(s, near);
  }
  return uvOf;
}

/** Flat length per model length over all faces that have UVs; undefined when none has. */
export function densityOf(document: HemDocument): number | undefined {
  let [area, flat] = [0, 0];
  for (let s = 0; s < shellsOf(document).shellCount; s++) {
    const shell = shellOf(document, s);
    const uv = shellUv(document, shell);
    if (!uv) continue;
    area += surfaceArea(shell.positions, shell.triangles);
    flat += Math.abs(signedArea(shell.triangles, uv));
  }
  return flat > 0 && area > 0 ? Math.sqrt(flat / area) : undefined;
}

function firstLayout(solved: ReadonlyMap<number, FlatMap>, context: Context): Map<number, Float64Array> {
  const entries = [...solved];
  const flat = entries.map(([, { shell, uv }]) => flatShell(shell.triangles, uv));
  const placements = packShells(flat, { size: 2048, padding: 8, turning: 'none' }, context);
  return new Map(entries.map(([s, { uv }], i) => [s, placed(uv, placements[i])]));
}

function nearOldPlace(document: HemDocument, shell: Shell, uv: Float64Array, density: number): Float64Array {
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
