import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { connectivityOf, findEdge } from '../mesh/connectivity.ts';
import { cube, sheet, torus } from '../testing/shapes.ts';
import { edgeLoop } from './edgeLoop.ts';
import { edgeLength, shortestPath } from './shortestPath.ts';

const grid = (rows: number, columns: number) => {
  const mesh = sheet(rows, columns, (i, j) => [j, i, 0]);
  return { mesh, connectivity: connectivityOf(mesh) };
};

describe('shortest path', () => {
  it('takes as many edges as there are steps across a grid', () => {
    const { mesh, connectivity } = grid(6, 9);
    const path = shortestPath(connectivity, 0, undefined, (e) => edgeLength(mesh, connectivity, e));
    fc.assert(
      fc.property(fc.nat(6), fc.nat(9), (i, j) => {
        const v = i * 10 + j;
        expect(path.cost[v]).toBeCloseTo(i + j, 12);
        expect(path.edgesTo(v)).toHaveLength(i + j);
      }),
    );
  });

  it('gives a chain from the start to the end', () => {
    const { mesh, connectivity } = grid(4, 4);
    const edges = shortestPath(connectivity, 0, 24, (e) => edgeLength(mesh, connectivity, e)).edgesTo(24);
    let at = 0;
    for (const e of edges) {
      expect([connectivity.edgeVertices[2 * e], connectivity.edgeVertices[2 * e + 1]]).toContain(at);
      at = connectivity.edgeVertices[2 * e] + connectivity.edgeVertices[2 * e + 1] - at;
    }
    expect(at).toBe(24);
  });

  it('goes round what is forbidden, and reaches nothing behind it', () => {
    const { connectivity } = grid(2, 2);
    const wall = new Set([findEdge(connectivity, 0, 1), findEdge(connectivity, 3, 4)]);
    const round = shortestPath(connectivity, 0, undefined, (e) => (wall.has(e) ? Infinity : 1));
    expect(round.edgesTo(1)).toHaveLength(5);
    wall.add(findEdge(connectivity, 6, 7));
    const cut = shortestPath(connectivity, 0, undefined, (e) => (wall.has(e) ? Infinity : 1));
    expect(cut.cost[1]).toBe(Infinity);
    expect(cut.edgesTo(1)).toEqual([]);
  });

  it('prefers cheap edges to few', () => {
    const { connectivity } = grid(1, 3);
    const dear = findEdge(connectivity, 1, 2);
    const path = shortestPath(connectivity, 0, 3, (e) => (e === dear ? 10 : 1));
    expect(path.edgesTo(3)).toHaveLength(5);
    expect(path.edgesTo(3)).not.toContain(dear);
  });
});

describe('edge loop', () => {
  it('is the same from whichever of its edges it is asked for', () => {
    const mesh = torus(9, 7);
    const connectivity = connectivityOf(mesh);
    fc.assert(
      fc.property(fc.nat(connectivity.isInterior.length - 1), (e) => {
        const loop = edgeLoop(mesh, connectivity, e);
        expect(new Set(loop).size).toBe(loop.length);
        expect([7, 9]).toContain(loop.length);
        const other = edgeLoop(mesh, connectivity, loop[loop.length >> 1]);
        expect(new Set(other)).toEqual(new Set(loop));
      }),
    );
  });

  it('ends at once where no four edges meet', () => {
    const mesh = cube();
    const connectivity = connectivityOf(mesh);
    expect(edgeLoop(mesh, connectivity, 0)).toEqual([0]);
  });

  it('ends where it meets a seam, and follows a seam to its forks', () => {
    const { mesh, connectivity } = grid(4, 6);
    const seams = new Uint8Array(connectivity.isInterior.length);
    for (const e of edgeLoop(mesh, connectivity, findEdge(connectivity, 14, 15))) seams[e] = 1;
    expect(edgeLoop(mesh, connectivity, findEdge(connectivity, 3, 10), seams)).toHaveLength(2);
    expect(edgeLoop(mesh, connectivity, findEdge(connectivity, 14, 15), seams)).toHaveLength(6);
    seams[findEdge(connectivity, 17, 24)] = 1;
    expect(edgeLoop(mesh, connectivity, findEdge(connectivity, 14, 15), seams)).toHaveLength(3);
  });

  it('runs straight between two borders', () => {
    const { mesh, connectivity } = grid(4, 6);
    const across = edgeLoop(mesh, connectivity, findEdge(connectivity, 3, 10));
    expect(across).toHaveLength(4);
    for (const e of across) expect(connectivity.edgeVertices[2 * e] % 7).toBe(3);
  });
});
