import { describe, expect, it } from 'vitest';
import { connectivityOf } from '../mesh/connectivity.ts';
import { type Mesh, meshFromPolygons } from '../mesh/mesh.ts';
import { triangulate } from '../mesh/triangulate.ts';
import { extractShell, faceTriangleStart } from '../surface/shell.ts';
import { type ShellMap, shellsFromSeams } from '../surface/shells.ts';
import { cube, sheet } from '../testing/shapes.ts';
import { NotAStripError, straightRows } from './straightRows.ts';

function shellsOf(mesh: Mesh, cut: (a: number, b: number) => boolean = () => false) {
  const connectivity = connectivityOf(mesh);
  const seams = connectivity.isInterior.map((_, e) =>
    cut(connectivity.edgeVertices[2 * e], connectivity.edgeVertices[2 * e + 1]) ? 1 : 0,
  );
  return shellsFromSeams(mesh, connectivity, seams);
}

function shellFrom(mesh: Mesh, shells: ShellMap, shell: number) {
  const triangulation = triangulate(mesh);
  return extractShell(mesh, triangulation, faceTriangleStart(mesh, triangulation), shells, shell);
}

/** Rows as far apart as 1, 2, 3 …, along a bent path: a belt. */
const belt = sheet(5, 2, (i, j) => [((i * (i + 1)) / 2) * 0.6, ((i * (i + 1)) / 2) * 0.8, j]);

describe('straight strip', () => {
  it('has rows and columns as wide as they are long on the surface', () => {
    const uv = straightRows(shellFrom(belt, shellsOf(belt), 0));
    const shells = shellsOf(belt);
    belt.cornerVertex.forEach((v, c) => {
      const [i, j] = [Math.floor(v / 3), v % 3];
      const w = shells.cornerWedge[c];
      expect(uv[2 * w]).toBeCloseTo(j, 12);
      expect(uv[2 * w + 1]).toBeCloseTo((i * (i + 1)) / 2, 12);
    });
  });

  it('unrolls a pipe cut lengthwise into circumference × length (common practice)', () => {
    const sides = 12;
    const pipe = meshFromPolygons(
      Array.from({ length: 3 * sides }, (_, i) => {
        const a = (2 * Math.PI * Math.floor(i / 3)) / sides;
        return [Math.sin(a), 2 * (i % 3), Math.cos(a)];
      }),
      Array.from({ length: 2 * sides }, (_, i) => {
        const [s, r] = [i >> 1, i & 1];
        const [a, b] = [3 * s + r, 3 * ((s + 1) % sides) + r];
        return [a, b, b + 1, a + 1];
      }),
    );
    expect(() => straightRows(shellFrom(pipe, shellsOf(pipe), 0))).toThrow(NotAStripError);
    const cut = shellsOf(pipe, (a, b) => a < 3 && b < 3);
    const uv = straightRows(shellFrom(pipe, cut, 0));
    const us = uv.filter((_, i) => !(i & 1));
    const vs = uv.filter((_, i) => i & 1);
    expect(Math.max(...us) - Math.min(...us)).toBeCloseTo(sides * 2 * Math.sin(Math.PI / sides), 9);
    expect(Math.max(...vs) - Math.min(...vs)).toBeCloseTo(4, 9);
  });

  it('refuses other polygons, and places where other than four quads meet, by name', () => {
    const tent = meshFromPolygons(
      [
        [0, 0, 0],
        [1, 0, 0],
        [1, 1, 0],
        [0, 1, 0],
        [0.5, 2, 0],
      ],
      [
        [0, 1, 2, 3],
        [3, 2, 4],
      ],
    );
    expect(() => straightRows(shellFrom(tent, shellsOf(tent), 0))).toThrow(/Only quads make straight rows/);
    const box = cube();
    const corner = shellsOf(box, (a, b) => !(a === 6 || b === 6));
    const shell = corner.faceShell[1];
    try {
      straightRows(shellFrom(box, corner, shell));
      expect.unreachable();
    } catch (error) {
      expect(error).toBeInstanceOf(NotAStripError);
      expect((error as NotAStripError).ids.length).toBeGreaterThan(0);
    }
  });
});
