import { describe, expect, it } from 'vitest';
import { connectivityOf } from '../mesh/connectivity.ts';
import { edgeLength } from '../select/shortestPath.ts';
import { sheet } from '../testing/shapes.ts';
import { ontoSurface } from './ontoSurface.ts';

const [rows, columns] = [12, 12];
const mesh = sheet(rows, columns, (i, j) => [j, 0, i]);
const connectivity = connectivityOf(mesh);
const lengths = Float64Array.from(connectivity.isInterior.keys(), (e) => edgeLength(mesh, connectivity, e));
const at = (i: number, j: number) => i * (columns + 1) + j;
const takenOver = (runs: readonly number[][], within?: (v: number) => boolean) =>
  ontoSurface(
    mesh,
    connectivity,
    runs.map((vertices) => ({ vertices, within })),
    lengths,
    lengths,
    () => false,
    1,
  );
const verticesOf = (edges: readonly number[]) =>
  new Set(edges.flatMap((e) => [connectivity.edgeVertices[2 * e], connectivity.edgeVertices[2 * e + 1]]));

describe('runs of seam taken over to a finer mesh', () => {
  it('run straight between their ends', () => {
    const [way] = takenOver([[at(3, 1), at(4, 4), at(2, 7), at(3, 10)]]);
    expect(way).toHaveLength(9);
    expect([...verticesOf(way)].every((v) => Math.floor(v / (columns + 1)) === 3)).toBe(true);
  });

  it('go round others where that is not far', () => {
    const wall = [at(6, 6), at(7, 6)];
    const [short, long] = takenOver([wall, [at(6, 2), at(6, 4), at(6, 8), at(6, 10)]]);
    expect(short).toHaveLength(1);
    const own = verticesOf(long);
    expect(wall.some((v) => own.has(v))).toBe(false);
    expect(long).toHaveLength(10);
  });

  it('go over others where they are shut in, or it would be far round', () => {
    // A wall from border to border, and one that leaves a gap at the far end.
    for (const last of [12, 10]) {
      const wall = [at(0, 6), at(last, 6)];
      const [, way] = takenOver([wall, [at(2, 3), at(2, 5), at(2, 8)]]);
      expect(way).toHaveLength(5);
    }
  });
});
