import { describe, expect, it } from 'vitest';
import { cube, sheet, torus } from '../testing/shapes.ts';
import { catmullClark } from './catmullClark.ts';
import { connectivityOf } from './connectivity.ts';
import { boundingBox, faceCount, type Mesh, meshFromPolygons, vertexCount } from './mesh.ts';
import { faceNormal, faceNormals, vertexNormals } from './normals.ts';

const levels = (mesh: Mesh, count: number): Mesh =>
  count === 0 ? mesh : levels(catmullClark(mesh).mesh, count - 1);

describe('Catmull–Clark', () => {
  it('makes a quad of every corner, and keeps the Euler characteristic', () => {
    for (const [mesh, euler] of [
      [cube(), 2],
      [torus(6, 5), 0],
    ] as const) {
      const { mesh: finer } = catmullClark(mesh);
      expect(faceCount(finer)).toBe(mesh.cornerVertex.length);
      expect(vertexCount(finer) - connectivityOf(finer).isInterior.length + faceCount(finer)).toBe(euler);
      expect(connectivityOf(finer).isInterior.every((isInterior) => isInterior === 1)).toBe(true);
    }
  });

  it('moves a cube corner by the rule of the paper', () => {
    // (Q + 2R + (n − 3)S) / n with n = 3: face points (±1 on one axis, 0 on the others), edge midpoints and corner.
    // For the corner (−1, −1, −1): Q = (−1/3, −1/3, −1/3), R = (−2/3, −2/3, −2/3), so the sum is −5/9.
    const { mesh } = catmullClark(cube());
    for (let k = 0; k < 3; k++) expect(mesh.positions[k]).toBeCloseTo(-5 / 9, 12);
  });

  it('makes cubic B-splines of borders', () => {
    const { mesh, edgePoint } = catmullClark(sheet(1, 2, (i, j) => [j, i, 0]));
    // Vertex 1, in the middle of a straight border, stays; the middle of an edge is its midpoint.
    expect([...mesh.positions.subarray(3, 6)]).toEqual([1, 0, 0]);
    const connectivity = connectivityOf(sheet(1, 2, (i, j) => [j, i, 0]));
    edgePoint.forEach((v, e) => {
      if (connectivity.isInterior[e]) return;
      const [a, b] = [connectivity.edgeVertices[2 * e], connectivity.edgeVertices[2 * e + 1]];
      const middle = (a % 3) + (b % 3);
      expect(mesh.positions[3 * v]).toBeCloseTo(middle / 2, 12);
    });
  });

  it('draws in towards a smooth surface', () => {
    const radius = (mesh: Mesh) => Math.max(...boundingBox(mesh.positions).map(Math.abs));
    expect(radius(levels(cube(), 3))).toBeLessThan(radius(levels(cube(), 1)));
    expect(radius(levels(cube(), 3))).toBeGreaterThan(0.7);
  });
});

describe('normals', () => {
  it('of a face is twice its area long, also far from the origin', () => {
    const far = 1e7;
    const square = meshFromPolygons(
      [
        [far, far, far],
        [far + 1, far, far],
        [far + 1, far + 1, far],
        [far, far + 1, far],
      ],
      [[0, 1, 2, 3]],
    );
    expect(faceNormal(square, 0)).toEqual([0, 0, 2]);
  });

  it('point outward on a cube, at faces and at corners', () => {
    const mesh = cube();
    const faces = faceNormals(mesh);
    expect([...faces.subarray(0, 3)].map((x) => x + 0)).toEqual([0, 0, -1]);
    const corners = vertexNormals(mesh);
    for (let i = 0; i < corners.length; i += 3) {
      for (let k = 0; k < 3; k++)
        expect(corners[i + k]).toBeCloseTo(mesh.positions[i + k] / Math.sqrt(3), 12);
    }
  });

  it('are zero where there is no area, never NaN', () => {
    const line = meshFromPolygons(
      [
        [0, 0, 0],
        [1, 0, 0],
        [2, 0, 0],
      ],
      [[0, 1, 2]],
    );
    expect([...faceNormals(line)]).toEqual([0, 0, 0]);
    expect([...vertexNormals(line)].some(Number.isNaN)).toBe(false);
  });
});
