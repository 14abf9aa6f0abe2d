import { cornerTurns } from '../mesh/cornerTurns.ts';
import { faceCount } from '../mesh/mesh.ts';
import { type RestTriangles, restTriangles } from './restTriangles.ts';
import type { Shell } from './shell.ts';

/** Triangles over the vertices of a shell with their shapes on the surface; each weighs as much as its `rest.area`. */
export interface WeightedTriangles {
  readonly triangles: Uint32Array;
  readonly rest: RestTriangles;
}

/**
 * The triangles of a shell whichever way its polygons are split: a quad counts as its four corner triangles, half each, so that
 * a map does not depend on a choice of diagonal, and one in which they all face up is valid under any. A larger polygon, or a quad
 * that is concave or bent at a corner on the surface, counts as the triangles it was split into and those at its convex corners,
 * together as much as its area. Of triangles alone they are the triangles of the shell.
 *
 * @param concaveToo  whether those corners count as well, as if they were convex
 */
export function anyDiagonal(shell: Shell, concaveToo = false): WeightedTriangles {
  const { positions, polygons } = shell;
  if (!polygons) return { triangles: shell.triangles, rest: restTriangles(positions, shell.triangles) };
  const mesh = { positions, ...polygons };
  const { faceStart, cornerVertex } = polygons;
  const corners: number[] = [];
  const ends: number[] = [];
  let own = 0;
  for (let f = 0; f < faceCount(mesh); f++) {
    const [first, end] = [faceStart[f], faceStart[f + 1]];
    const firstOwn = own;
    own += 3 * Math.max(0, end - first - 2);
    const turns = end - first > 3 ? cornerTurns(mesh, f) : undefined;
    if (!turns || end - first > 4 || turns.some((turn) => turn <= 0))
      for (let i = firstOwn; i < own; i++) corners.push(shell.triangles[i]);
    turns?.forEach((turn, k) => {
      if (turn <= 0 && !concaveToo) return;
      const c = first + k;
      corners.push(
        cornerVertex[c === first ? end - 1 : c - 1],
        cornerVertex[c],
        cornerVertex[c + 1 === end ? first : c + 1],
      );
    });
    ends.push(corners.length / 3);
  }
  const triangles = Uint32Array.from(corners);
  const { local, area } = restTriangles(positions, triangles);
  const ownArea = restTriangles(positions, shell.triangles).area;
  let [from, t, totalArea] = [0, 0, 0];
  ends.forEach((end, f) => {
    let [sum, due] = [0, 0];
    for (let i = from; i < end; i++) sum += area[i];
    const size = faceStart[f + 1] - faceStart[f];
    for (const last = t + size - 2; t < last; t++) due += ownArea[t];
    // Both ways of splitting a quad cover it once: half of each needs no measure of its own.
    if (size === 4 && end - from === 4) due = sum / 2;
    for (let i = from; i < end; i++) area[i] *= due / sum;
    totalArea += due;
    from = end;
  });
  return { triangles, rest: { local, area, totalArea } };
}
