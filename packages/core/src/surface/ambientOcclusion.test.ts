import { describe, expect, it } from 'vitest';
import { connectivityOf } from '../mesh/connectivity.ts';
import { meshFromPolygons } from '../mesh/mesh.ts';
import { triangulate } from '../mesh/triangulate.ts';
import { unattended } from '../progress.ts';
import { cube, sheet } from '../testing/shapes.ts';
import { vertexOcclusion } from './ambientOcclusion.ts';
import { rayCaster, rayTree } from './rays.ts';

function occlusionOf(mesh: ReturnType<typeof cube>, size: number): Float32Array {
  const points = Float32Array.from(
    [...triangulate(mesh).triangleCorners].flatMap((c) => [
      ...mesh.positions.subarray(3 * mesh.cornerVertex[c], 3 * mesh.cornerVertex[c] + 3),
    ]),
  );
  return vertexOcclusion(mesh, connectivityOf(mesh), rayCaster(rayTree(points)), size, unattended);
}

describe('how much of the sky a vertex sees', () => {
  it('is all of it from a convex solid', () => {
    for (const value of occlusionOf(cube(), 3.5)) expect(value).toBeCloseTo(1, 6);
  });

  it('is less in a hollow than on its rim, and fills in what no ray was cast from', () => {
    // A bowl of 160 × 160 vertices: more than rays are cast from.
    const bowl = sheet(159, 159, (i, j) => {
      const [x, z] = [(j - 79.5) / 80, (79.5 - i) / 80];
      return [x, -1.4 * Math.exp(-4 * (x * x + z * z)), z];
    });
    const seen = occlusionOf(bowl, 3);
    expect(Math.min(...seen)).toBeGreaterThan(0);
    expect(Math.max(...seen)).toBeLessThanOrEqual(1);
    expect(seen[160 * 80 + 80]).toBeLessThan(0.75);
    expect(seen[160 * 2 + 2]).toBeGreaterThan(0.9);
  });

  it('is half of it at the very foot of a high wall', () => {
    // Common practice: a wall hides half of the cosine-weighed sky from its very foot.
    const wall = meshFromPolygons(
      [
        [0, 0, -9],
        [0, 0, 9],
        [9, 0, 9],
        [9, 0, -9],
        [0, 9, 9],
        [0, 9, -9],
        [0.01, 0, 0],
        [0.02, 0, 0],
        [0.01, 0, 0.01],
      ],
      [
        [0, 1, 2, 3],
        [1, 0, 5, 4],
        [6, 8, 7],
      ],
    );
    const seen = occlusionOf(wall, 2000);
    expect(seen[6]).toBeGreaterThan(0.4);
    expect(seen[6]).toBeLessThan(0.6);
  });
});
