import { describe, expect, it } from 'vitest';
import { connectivityOf } from '../mesh/connectivity.ts';
import type { Mesh } from '../mesh/mesh.ts';
import { faceNormal } from '../mesh/normals.ts';
import { meshOfShell } from '../surface/cutShell.ts';
import { facesOfShell, shellsFromSeams } from '../surface/shells.ts';
import { glove } from '../testing/sculpts.ts';
import { horn, sheet, sphericalCap, torus, tube } from '../testing/shapes.ts';
import { ringAround } from './ringAround.ts';
import { edgeLength } from './shortestPath.ts';

function ring(mesh: Mesh, vertex: number) {
  const connectivity = connectivityOf(mesh);
  const edges = ringAround(mesh, connectivity, vertex);
  const length = edges.reduce((sum, e) => sum + edgeLength(mesh, connectivity, e), 0);
  const seams = new Uint8Array(connectivity.isInterior.length);
  for (const e of edges) seams[e] = 1;
  const degree = new Map<number, number>();
  for (const e of edges)
    for (const v of connectivity.edgeVertices.subarray(2 * e, 2 * e + 2))
      degree.set(v, (degree.get(v) ?? 0) + 1);
  return {
    edges,
    length,
    isRing: edges.length > 2 && [...degree.values()].every((d) => d === 2) && degree.has(vertex),
    pieces: shellsFromSeams(mesh, connectivity, seams).shellCount,
  };
}

describe('the ring round a place', () => {
  it('goes round a sleeve and a horn through the place, and parts them', () => {
    const sleeve = ring(meshOfShell(tube(20, 12, 16)), 10 * 12 + 3);
    expect(sleeve).toMatchObject({ isRing: true, pieces: 2 });
    expect(sleeve.edges).toHaveLength(12);
    const cone = ring(meshOfShell(horn(30, 12, 20)), 8 * 12 + 5);
    expect(cone).toMatchObject({ isRing: true, pieces: 2 });
    expect(cone.edges).toHaveLength(12);
  });

  it('goes round the tube of a torus, not round its hole, and does not part it', () => {
    const around = ring(torus(24, 12), 31);
    expect(around).toMatchObject({ isRing: true, pieces: 1 });
    expect(around.edges).toHaveLength(12);
  });

  it('goes round a finger of a sculpted glove of triangles without loops', () => {
    const mesh = meshOfShell(glove(44));
    // The vertex at the highest place is the tip of a finger; a little below it is its side.
    const { positions } = mesh;
    const heights = Array.from({ length: positions.length / 3 }, (_, v) => positions[3 * v + 1]);
    const top = Math.max(...heights);
    const size = top - Math.min(...heights);
    const side = heights.findIndex((y) => Math.abs(y - (top - 0.12 * size)) < 0.01 * size);
    const round = ring(mesh, side);
    expect(round).toMatchObject({ isRing: true, pieces: 2 });
    expect(round.length).toBeLessThan(size);
  });

  it('goes on going round it when it is run straight: nowhere on a glove does a ring slip off and part a few faces', () => {
    const mesh = meshOfShell(glove(44));
    const connectivity = connectivityOf(mesh);
    let found = 0;
    for (let v = 0; v < mesh.positions.length / 3; v += 31) {
      const { edges, length, isRing, pieces } = ring(mesh, v);
      if (edges.length === 0) continue;
      found++;
      expect(isRing, `ring at ${v}`).toBe(true);
      if (pieces === 1) continue;
      const seams = new Uint8Array(connectivity.isInterior.length);
      for (const e of edges) seams[e] = 1;
      const shells = shellsFromSeams(mesh, connectivity, seams);
      const [small] = [0, 1]
        .map((s) => facesOfShell(shells, s))
        .map((faces) => ({
          area: faces.reduce((sum, f) => sum + Math.hypot(...faceNormal(mesh, f)) / 2, 0),
          isOpen: faces.some((f) =>
            [0, 1, 2].some((k) => !connectivity.isInterior[connectivity.cornerEdge[3 * f + k]]),
          ),
        }))
        .sort((a, b) => a.area - b.area);
      // What lies between a ring and a border may be narrow. A flat disc has 4 π times its area as the square of what goes round it.
      if (!small.isOpen) expect(length ** 2, `ring at ${v}`).toBeLessThan(0.8 * 4 * Math.PI * small.area);
    }
    expect(found).toBeGreaterThan(50);
  });

  it('finds nothing on a sheet, on a bump and on a shallow cap', () => {
    expect(
      ring(
        sheet(12, 12, (i, j) => [j, i, 0]),
        80,
      ).edges,
    ).toEqual([]);
    expect(ring(meshOfShell(sphericalCap(12, 24, 1.2)), 100).edges).toEqual([]);
  });
});
