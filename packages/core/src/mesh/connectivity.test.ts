import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { cube, torus } from '../testing/shapes.ts';
import { connectivityOf, findEdge } from './connectivity.ts';
import { meshFromPolygons } from './mesh.ts';
import { loosePieces } from './model.ts';
import { triangulate } from './triangulate.ts';

describe('connectivity', () => {
  it('counts the 12 edges of a cube, all joined', () => {
    const connectivity = connectivityOf(cube());
    expect(connectivity.isInterior.length).toBe(12);
    expect(connectivity.isInterior.every((j) => j === 1)).toBe(true);
    expect(findEdge(connectivity, 0, 1)).toBeGreaterThanOrEqual(0);
    expect(findEdge(connectivity, 0, 6)).toBe(-1);
  });

  it('gives a torus the Euler characteristic 0', () => {
    const mesh = torus(12, 8);
    expect(mesh.positions.length / 3 - connectivityOf(mesh).isInterior.length + 96).toBe(0);
  });

  it('treats an edge with three faces, and two faces of opposed winding, as borders', () => {
    const fin = meshFromPolygons(
      [
        [0, 0, 0],
        [1, 0, 0],
        [0, 1, 0],
        [0, -1, 0],
        [0, 0, 1],
      ],
      [
        [0, 1, 2],
        [1, 0, 3],
        [0, 1, 4],
      ],
    );
    const connectivity = connectivityOf(fin);
    expect(connectivity.isInterior[findEdge(connectivity, 0, 1)]).toBe(0);
    const opposed = meshFromPolygons(
      [
        [0, 0, 0],
        [1, 0, 0],
        [0, 1, 0],
        [0, -1, 0],
      ],
      [
        [0, 1, 2],
        [0, 1, 3],
      ],
    );
    const apart = connectivityOf(opposed);
    expect([...apart.isInterior]).toEqual([0, 0, 0, 0, 0]);
    expect(loosePieces(opposed, apart).count).toBe(1);
  });

  it('survives any polygon soup', () => {
    const face = fc.array(fc.nat(9), { minLength: 3, maxLength: 6 });
    fc.assert(
      fc.property(fc.array(face, { minLength: 1, maxLength: 12 }), (faces) => {
        const mesh = meshFromPolygons(
          Array.from({ length: 10 }, (_, i) => [i, i * i, 0]),
          faces,
        );
        const connectivity = connectivityOf(mesh);
        expect(connectivity.edgeCorners.length).toBe(mesh.cornerVertex.length);
        for (let c = 0; c < mesh.cornerVertex.length; c++) {
          const e = connectivity.cornerEdge[c];
          const ends = [mesh.cornerVertex[c], mesh.cornerVertex[connectivity.nextCorner[c]]].sort(
            (a, b) => a - b,
          );
          expect([connectivity.edgeVertices[2 * e], connectivity.edgeVertices[2 * e + 1]]).toEqual(ends);
        }
      }),
    );
  });
});

describe('triangulate', () => {
  it('splits a concave polygon inside its outline and keeps the winding', () => {
    const arrow = meshFromPolygons(
      [
        [0, 0, 0],
        [2, -1, 0],
        [0.5, 0, 0],
        [2, 1, 0],
        [1, 0.45, 0],
      ],
      [[0, 1, 2, 3, 4]],
    );
    const { triangleCorners } = triangulate(arrow);
    const areas = Array.from({ length: triangleCorners.length / 3 }, (_, t) => {
      const [a, b, c] = [0, 1, 2].map((k) => 3 * triangleCorners[3 * t + k]);
      const p = arrow.positions;
      return ((p[b] - p[a]) * (p[c + 1] - p[a + 1]) - (p[c] - p[a]) * (p[b + 1] - p[a + 1])) / 2;
    });
    expect(areas.every((area) => area > 0)).toBe(true);
    expect(areas.reduce((x, y) => x + y)).toBeCloseTo(0.45, 12);
  });

  it('splits a concave quad at its dent', () => {
    const dart = meshFromPolygons(
      [
        [0, 0, 0],
        [2, 1, 0],
        [0.4, 0, 0],
        [2, -1, 0],
      ].reverse(),
      [[0, 1, 2, 3]],
    );
    expect([...triangulate(dart).triangleCorners]).toEqual([1, 2, 3, 1, 3, 0]);
  });
});
