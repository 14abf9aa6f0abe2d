import { describe, expect, it } from 'vitest';
import { connectivityOf, findEdge } from '../mesh/connectivity.ts';
import type { Mesh } from '../mesh/mesh.ts';
import { triangulate } from '../mesh/triangulate.ts';
import { openShell } from '../seams/openShell.ts';
import { edgeLoop } from '../select/edgeLoop.ts';
import { cube, sheet, torus } from '../testing/shapes.ts';
import { extractShell, faceTriangleStart } from './shell.ts';
import { facesOfShell, isOpen, shellsFromSeams } from './shells.ts';
import { shellTopology } from './shellTopology.ts';

function cutAt(mesh: Mesh, pairs: readonly (readonly [number, number])[]) {
  const connectivity = connectivityOf(mesh);
  const seams = new Uint8Array(connectivity.isInterior.length);
  for (const [a, b] of pairs) seams[findEdge(connectivity, a, b)] = 1;
  return { connectivity, seams, shells: shellsFromSeams(mesh, connectivity, seams) };
}

function topologies(mesh: Mesh, seams: Uint8Array) {
  const connectivity = connectivityOf(mesh);
  const shells = shellsFromSeams(mesh, connectivity, seams);
  const triangulation = triangulate(mesh);
  const start = faceTriangleStart(mesh, triangulation);
  return Array.from({ length: shells.shellCount }, (_, s) =>
    shellTopology(extractShell(mesh, triangulation, start, shells, s)),
  );
}

/** Three edges round one end, three round the other, one down the side (common practice). */
const CROSS = [
  [0, 1],
  [1, 2],
  [2, 3],
  [4, 5],
  [5, 6],
  [6, 7],
  [1, 5],
] as const;

describe('shells from seams', () => {
  it('opens a cube into one flat cross of 14 wedges with 7 of its 12 edges cut', () => {
    const { seams, shells } = cutAt(cube(), CROSS);
    expect(shells.shellCount).toBe(1);
    expect(shells.wedgeStart[1]).toBe(14);
    expect(topologies(cube(), seams)[0].kind).toBe('disk');
  });

  it('cuts a lid off with the four edges round it', () => {
    const { shells } = cutAt(cube(), [
      [4, 5],
      [5, 6],
      [6, 7],
      [7, 4],
    ]);
    expect(shells.shellCount).toBe(2);
    expect(Array.from({ length: 2 }, (_, s) => facesOfShell(shells, s).length).sort()).toEqual([1, 5]);
  });

  it('opens nothing with a single cut edge, and says so', () => {
    const { connectivity, shells } = cutAt(cube(), [[0, 1]]);
    expect(shells.wedgeStart[1]).toBe(8);
    expect(isOpen(connectivity, shells, findEdge(connectivity, 0, 1))).toBe(false);
  });
});

describe('topology', () => {
  const tube = sheet(3, 8, (i, j) => [Math.cos((j * Math.PI) / 4), i, Math.sin((j * Math.PI) / 4)]);
  // The last column of a sheet lies on the first: weld it.
  const weld = (mesh: Mesh, columns: number): Mesh => ({
    ...mesh,
    cornerVertex: mesh.cornerVertex.map((v) => (v % (columns + 1) === columns ? v - columns : v)),
  });

  it('tells flat, closed, tube and handle apart', () => {
    expect(topologies(tube, new Uint8Array(99))[0]).toMatchObject({ kind: 'disk', canUnfold: true });
    expect(topologies(cube(), new Uint8Array(12))[0]).toMatchObject({ kind: 'closed', canUnfold: false });
    expect(topologies(torus(12, 8), new Uint8Array(192))[0]).toMatchObject({ kind: 'closed', genus: 1 });
  });

  it('sees the two borders of a tube, and the handle of a torus with a hole', () => {
    const welded = weld(tube, 8);
    // Vertices left over by the weld belong to no face and no shell.
    expect(topologies(welded, new Uint8Array(connectivityOf(welded).isInterior.length))[0]).toMatchObject({
      kind: 'annulus',
      borderCount: 2,
    });
    const mesh = torus(12, 8);
    const holed: Mesh = {
      ...mesh,
      faceStart: mesh.faceStart.slice(0, -1),
      cornerVertex: mesh.cornerVertex.slice(0, -4),
    };
    expect(topologies(holed, new Uint8Array(connectivityOf(holed).isInterior.length))[0]).toMatchObject({
      kind: 'withHandle',
      canUnfold: false,
    });
  });

  it('opens a cube, a tube, a torus and a torus with a hole into discs', () => {
    const mesh = torus(12, 8);
    const holed: Mesh = {
      ...mesh,
      faceStart: mesh.faceStart.slice(0, -1),
      cornerVertex: mesh.cornerVertex.slice(0, -4),
    };
    for (const piece of [cube(), weld(tube, 8), mesh, holed]) {
      const connectivity = connectivityOf(piece);
      const seams = new Uint8Array(connectivity.isInterior.length);
      const triangulation = triangulate(piece);
      const start = faceTriangleStart(piece, triangulation);
      const shell = extractShell(piece, triangulation, start, shellsFromSeams(piece, connectivity, seams), 0);
      const vertexOf = (v: number) => piece.cornerVertex[shell.vertexCorner[v]];
      for (const [a, b] of openShell(shell, () => 1, { disc: true }).edges)
        seams[findEdge(connectivity, vertexOf(a), vertexOf(b))] = 1;
      expect(topologies(piece, seams).map(({ kind }) => kind)).toEqual(['disk']);
    }
  });
});

describe('edge loop', () => {
  it('runs once round a torus either way', () => {
    const mesh = torus(12, 8);
    const connectivity = connectivityOf(mesh);
    expect(edgeLoop(mesh, connectivity, findEdge(connectivity, 0, 1)).length).toBe(8);
    expect(edgeLoop(mesh, connectivity, findEdge(connectivity, 0, 8)).length).toBe(12);
  });

  it('follows a border, and ends where the grid does', () => {
    const mesh = sheet(3, 5, (i, j) => [j, i, 0]);
    const connectivity = connectivityOf(mesh);
    expect(edgeLoop(mesh, connectivity, findEdge(connectivity, 0, 1)).length).toBe(16);
    expect(edgeLoop(mesh, connectivity, findEdge(connectivity, 6, 7)).length).toBe(5);
  });
});
