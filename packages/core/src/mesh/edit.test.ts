import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { cube, sheet } from '../testing/shapes.ts';
import {
  type MeshEdit,
  used,
  withFlipped,
  withJoined,
  withoutFaces,
  withoutLoosePoints,
  withSplitVertices,
  withTriangulated,
} from './edit.ts';
import { cornerFaces, faceCount, type Mesh, meshFromPolygons } from './mesh.ts';
import { faceNormal } from './normals.ts';

const grid = sheet(3, 3, (i, j) => [j, i, 0.1 * i * j]);
const place = (mesh: Mesh, c: number) =>
  [...mesh.positions.subarray(3 * mesh.cornerVertex[c], 3 * mesh.cornerVertex[c] + 3)].join();

/** What every edit must keep: sources that exist, corners of their own face, and sound indices. */
function holds(before: Mesh, { mesh, faceSource, cornerSource }: MeshEdit): void {
  const faces = cornerFaces(mesh);
  const oldFaces = cornerFaces(before);
  expect(faceSource).toHaveLength(faceCount(mesh));
  expect(cornerSource).toHaveLength(mesh.cornerVertex.length);
  expect([...faceSource]).toEqual([...faceSource].sort((a, b) => a - b));
  cornerSource.forEach((c, i) => {
    expect(oldFaces[c]).toBe(faceSource[faces[i]]);
  });
  expect(mesh.cornerVertex.every((v) => v < mesh.positions.length / 3)).toBe(true);
}

/** Points stay where they were. */
function keepsPlaces(before: Mesh, { mesh, cornerSource }: MeshEdit): void {
  cornerSource.forEach((c, i) => {
    expect(place(mesh, i)).toBe(place(before, c));
  });
}

describe('edits of a mesh', () => {
  const some = fc.uniqueArray(fc.nat(8), { minLength: 1, maxLength: 8 });

  it('take faces away, and only the points that nothing else uses', () => {
    fc.assert(
      fc.property(some, (gone) => {
        const edit = withoutFaces(grid, gone);
        holds(grid, edit);
        keepsPlaces(grid, edit);
        expect(faceCount(edit.mesh)).toBe(9 - gone.length);
        expect(used(edit.mesh).every((u) => u === 1)).toBe(true);
      }),
    );
    const loose: Mesh = { ...grid, positions: Float64Array.of(...grid.positions, 7, 7, 7) };
    // What was loose before is another matter.
    expect(withoutFaces(loose, [0]).mesh.positions.subarray(-3)).toEqual(Float64Array.of(7, 7, 7));
    expect(withoutLoosePoints(loose).mesh.positions).toEqual(grid.positions);
  });

  it('turn faces over and back', () => {
    fc.assert(
      fc.property(some, (faces) => {
        const edit = withFlipped(grid, faces);
        holds(grid, edit);
        keepsPlaces(grid, edit);
        for (let f = 0; f < 9; f++) {
          const sign = faces.includes(f) ? -1 : 1;
          expect(faceNormal(edit.mesh, f)[2] * faceNormal(grid, f)[2] * sign).toBeGreaterThan(0);
        }
        expect(withFlipped(edit.mesh, faces).mesh.cornerVertex).toEqual(grid.cornerVertex);
      }),
    );
  });

  it('join points: faces lose corners that come to lie on their neighbour, and vanish below three', () => {
    const standIn = Uint32Array.from({ length: 16 }, (_, v) => v);
    standIn[1] = 0; // one edge of a quad
    standIn[15] = 10; // a quad across
    standIn[14] = 10;
    const edit = withJoined(grid, standIn);
    holds(grid, edit);
    const sizes = Array.from(edit.faceSource, (_, f) => edit.mesh.faceStart[f + 1] - edit.mesh.faceStart[f]);
    expect(edit.mesh.positions).toHaveLength(3 * 13);
    expect(sizes[0]).toBe(3);
    expect(sizes.every((size) => size >= 3)).toBe(true);
  });

  it('split polygons into triangles of the same area, in their place', () => {
    fc.assert(
      fc.property(some, (faces) => {
        const edit = withTriangulated(grid, faces);
        holds(grid, edit);
        keepsPlaces(grid, edit);
        expect(faceCount(edit.mesh)).toBe(9 + faces.length);
      }),
    );
    const ell = meshFromPolygons(
      [
        [0, 0, 0],
        [2, 0, 0],
        [2, 1, 0],
        [1, 1, 0],
        [1, 2, 0],
        [0, 2, 0],
      ],
      [[0, 1, 2, 3, 4, 5]],
    );
    const { mesh } = withTriangulated(ell, [0]);
    const area = Array.from({ length: faceCount(mesh) }, (_, f) => faceNormal(mesh, f)[2] / 2);
    expect(area.every((a) => a > 0)).toBe(true);
    expect(area.reduce((a, b) => a + b)).toBeCloseTo(3, 12);
  });

  it('give fans of corners points of their own, the first keeping the old one', () => {
    const box = cube();
    const fan = Uint32Array.from(cornerFaces(box));
    const edit = withSplitVertices(box, fan);
    holds(box, edit);
    keepsPlaces(box, edit);
    // Every corner stands alone now; the eight old points are used still.
    expect(new Set(edit.mesh.cornerVertex).size).toBe(24);
    expect(edit.mesh.positions.subarray(0, 24)).toEqual(box.positions);
  });
});
