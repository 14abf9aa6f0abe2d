import fc from 'fast-check';
import createGraph from 'ngraph.graph';
import { nba } from 'ngraph.path';
import { describe, expect, it } from 'vitest';
import { openDocument, topologyOf } from '../document/document.ts';
import { localJobs } from '../jobs/index.ts';
import { connectivityOf, findEdge } from '../mesh/connectivity.ts';
import { meshFromPolygons } from '../mesh/mesh.ts';
import { modelFromMesh } from '../mesh/model.ts';
import { faceNormals } from '../mesh/normals.ts';
import { unattended } from '../progress.ts';
import { answerQuestion } from '../questions/index.ts';
import { edgeLength, growingPath } from '../select/shortestPath.ts';
import { straightenPath } from '../select/straightenPath.ts';
import { meshOfShell } from '../surface/cutShell.ts';
import { glove } from '../testing/sculpts.ts';
import { sheet } from '../testing/shapes.ts';
import { edgeCosts } from './edgeCosts.ts';

const context = { ...unattended, jobs: localJobs };

/** A sheet of triangles, its inner points pushed about. */
function rough(n: number, push: (v: number) => number) {
  const quads = sheet(n, n, (i, j) => [
    j + push(2 * (i * (n + 1) + j)),
    i + push(2 * (i * (n + 1) + j) + 1),
    0,
  ]);
  const vertices = Array.from({ length: quads.positions.length / 3 }, (_, v) => [
    ...quads.positions.subarray(3 * v, 3 * v + 3),
  ]);
  const faces = Array.from({ length: n * n }, (_, f) => [...quads.cornerVertex.subarray(4 * f, 4 * f + 4)]);
  const mesh = meshFromPolygons(
    vertices,
    faces.flatMap(([a, b, c, d]) => [
      [a, b, c],
      [a, c, d],
    ]),
  );
  return { mesh, connectivity: connectivityOf(mesh) };
}

describe('growing ways', () => {
  it('are as short as those of an independent library (ngraph.path), grown at once or bit by bit', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 0, max: 0.4, noNaN: true }), { minLength: 98, maxLength: 98 }),
        fc.nat(48),
        fc.nat(48),
        (list, a, b) => {
          fc.pre(a !== b);
          const { mesh, connectivity } = rough(6, (i) => list[i]);
          const graph = createGraph();
          for (let e = 0; e < connectivity.isInterior.length; e++)
            graph.addLink(
              connectivity.edgeVertices[2 * e],
              connectivity.edgeVertices[2 * e + 1],
              edgeLength(mesh, connectivity, e),
            );
          const way = nba(graph, { distance: (_from, _to, link) => link.data as number }).find(a, b);
          let theirs = 0;
          for (let i = 1; i < way.length; i++)
            theirs += edgeLength(
              mesh,
              connectivity,
              findEdge(connectivity, way[i - 1].id as number, way[i].id as number),
            );
          const ours = growingPath(connectivity, a, (e) => edgeLength(mesh, connectivity, e));
          for (let k = 0; k < 60 && !ours.grow(b, 1); k++);
          expect(ours.cost[b]).toBeCloseTo(theirs, 9);
          expect(ours.edgesTo(b).reduce((sum, e) => sum + edgeLength(mesh, connectivity, e), 0)).toBeCloseTo(
            theirs,
            9,
          );
          ours.grow();
          expect(ours.cost.every(Number.isFinite)).toBe(true);
        },
      ),
      { numRuns: 40 },
    );
  });

  it('begin at the nearest of several vertices', () => {
    const { mesh, connectivity } = rough(6, () => 0);
    const ways = growingPath(connectivity, [0, 6], (e) => edgeLength(mesh, connectivity, e));
    ways.grow();
    expect(ways.cost[1]).toBeCloseTo(1, 9);
    expect(ways.cost[5]).toBeCloseTo(1, 9);
  });
});

describe('straightening', () => {
  const { mesh, connectivity } = rough(10, () => 0);
  const length = (e: number) => edgeLength(mesh, connectivity, e);
  const turns = (start: number, edges: readonly number[]) => {
    let at = start;
    let last: number[] | undefined;
    let count = 0;
    for (const e of edges) {
      const to = connectivity.edgeVertices[2 * e] + connectivity.edgeVertices[2 * e + 1] - at;
      const d = [0, 1].map((k) => mesh.positions[3 * to + k] - mesh.positions[3 * at + k]);
      if (last && Math.abs(last[0] * d[1] - last[1] * d[0]) > 1e-9) count++;
      last = d;
      at = to;
    }
    return { count, at };
  };

  it('takes the turns out of a staircase, at no more length', () => {
    const stairs: number[] = [];
    for (let k = 0; k < 8; k++)
      stairs.push(
        findEdge(connectivity, 11 * k + k, 11 * k + k + 1),
        findEdge(connectivity, 11 * k + k + 1, 11 * (k + 1) + k + 1),
      );
    expect(turns(0, stairs)).toEqual({ count: 15, at: 88 + 8 });
    const straight = straightenPath(mesh, connectivity, 0, stairs, length);
    // Along the diagonals of the sheet.
    expect(straight).toHaveLength(8);
    expect(turns(0, straight)).toEqual({ count: 0, at: 96 });
  });

  it('of ways that are equally long takes the one with the fewest turns', () => {
    // A diagonal and a step up, four times over.
    const zigzag: number[] = [];
    for (let k = 0; k < 4; k++) {
      const a = 22 * k + k;
      zigzag.push(findEdge(connectivity, a, a + 12), findEdge(connectivity, a + 12, a + 23));
    }
    expect(turns(0, zigzag)).toEqual({ count: 7, at: 92 });
    const straight = straightenPath(mesh, connectivity, 0, zigzag, length);
    expect(turns(0, straight)).toEqual({ count: 1, at: 92 });
    expect(straight.reduce((sum, e) => sum + length(e), 0)).toBeCloseTo(4 + 4 * Math.SQRT2, 9);
  });

  it('keeps to where it is free, and keeps its ends', () => {
    const edges = Array.from({ length: 10 }, (_, k) => findEdge(connectivity, 55 + k, 56 + k));
    const wall = new Set([60]);
    const round = straightenPath(mesh, connectivity, 55, edges.slice(0, 4), length, {
      isFree: (v) => !wall.has(v),
    });
    expect(turns(55, round).at).toBe(59);
    expect(straightenPath(mesh, connectivity, 55, [], length)).toEqual([]);
    expect(straightenPath(mesh, connectivity, 55, edges.slice(0, 1), length)).toEqual(edges.slice(0, 1));
  });

  it('goes round dear ground where that is near', () => {
    const along = Array.from({ length: 10 }, (_, k) => findEdge(connectivity, 55 + k, 56 + k));
    const dear = new Set(along.slice(3, 7));
    const round = straightenPath(mesh, connectivity, 55, along, (e) => (dear.has(e) ? 20 : length(e)));
    expect(round.some((e) => dear.has(e))).toBe(false);
    expect(turns(55, round).at).toBe(65);
  });
});

describe('what seams cost', () => {
  it('is their length when they are to be short, and little where they hide, in folds, and along seams', () => {
    const bent = sheet(4, 8, (i, j) => [j, i, Math.abs(j - 4)]);
    const connectivity = connectivityOf(bent);
    const fold = findEdge(connectivity, 9 + 4, 18 + 4);
    const plain = findEdge(connectivity, 9 + 2, 18 + 2);
    const visibility = new Float32Array(connectivity.isInterior.length).fill(1);
    const cost = (hidden: number, over: Partial<Parameters<typeof edgeCosts>[3]> = {}) =>
      edgeCosts(bent, connectivity, faceNormals(bent), { hidden, visibility, ...over });
    expect(cost(0)[plain]).toBeCloseTo(1, 9);
    expect(cost(0)[fold]).toBeCloseTo(1, 9);
    expect(cost(1)[plain]).toBeCloseTo(1, 9);
    expect(cost(1)[fold]).toBeLessThan(0.5);
    expect(cost(1, { visibility: new Float32Array(visibility.length) })[plain]).toBeLessThan(0.1);
    const seams = new Uint8Array(visibility.length);
    seams[plain] = 1;
    expect(cost(1, { seams })[plain]).toBeLessThan(0.05);
    // Where the mesh ends nothing needs to be cut.
    expect(cost(1)[findEdge(connectivity, 0, 1)]).toBeLessThan(0.05);
  });
});

describe('a route', () => {
  const document = openDocument(modelFromMesh('glove', meshOfShell(glove(24))));
  const { mesh, connectivity } = topologyOf(document.model);
  const last = mesh.positions.length / 3 - 1;
  const walk = (start: number, edges: readonly number[]) =>
    edges.reduce((at, e) => {
      expect([connectivity.edgeVertices[2 * e], connectivity.edgeVertices[2 * e + 1]]).toContain(at);
      return connectivity.edgeVertices[2 * e] + connectivity.edgeVertices[2 * e + 1] - at;
    }, start);

  it('leads through its points in order, and back when it is closed', async () => {
    const through = [0, Math.floor(last / 2), last];
    const open = await answerQuestion(document, 'route', { through }, context);
    expect(open.legs).toHaveLength(2);
    expect(walk(0, open.edges)).toBe(last);
    expect(walk(0, open.edges.slice(0, open.legs[0]))).toBe(through[1]);
    const closed = await answerQuestion(document, 'route', { through, close: true }, context);
    expect(closed.legs).toHaveLength(3);
    expect(walk(0, closed.edges)).toBe(0);
  });

  it('hides the more the more it is asked to', async () => {
    const { vertices } = await answerQuestion(document, 'visibility', {}, context);
    const seen = async (hidden: number) => {
      const { edges } = await answerQuestion(document, 'route', { through: [0, last], hidden }, context);
      let [length, shown] = [0, 0];
      for (const e of edges) {
        const own = edgeLength(mesh, connectivity, e);
        length += own;
        shown +=
          (own *
            (vertices[connectivity.edgeVertices[2 * e]] + vertices[connectivity.edgeVertices[2 * e + 1]])) /
          2;
      }
      return { length, shown: shown / length };
    };
    const [short, hidden] = [await seen(0), await seen(1)];
    expect(hidden.shown).toBeLessThan(short.shown);
    expect(hidden.length).toBeGreaterThanOrEqual(short.length * 0.95);
  });

  it('says where pieces come nearest when no way leads from one to the other', async () => {
    const apart = meshFromPolygons(
      [
        [0, 0, 0],
        [1, 0, 0],
        [0, 1, 0],
        [3, 0, 0],
        [9, 0, 0],
        [9, 1, 0],
      ],
      [
        [0, 1, 2],
        [3, 4, 5],
      ],
    );
    const two = openDocument(modelFromMesh('two', apart));
    const found = await answerQuestion(two, 'route', { through: [2, 5], hidden: 0 }, context);
    expect(found).toEqual({ edges: [], legs: [], gap: [1, 3] });
    await expect(answerQuestion(two, 'route', { through: [77] }, context)).rejects.toThrow(/no point 77/);
    expect((await answerQuestion(two, 'route', { through: [2], hidden: 0 }, context)).edges).toEqual([]);
  });

  it('follows seams and borders only when told to: the shortest way is short', async () => {
    // A sheet with a seam two rows beside the straight way between two points of it.
    const mesh = sheet(8, 16, (i, j) => [j, 0, i]);
    const bare = openDocument(modelFromMesh('Sheet', mesh));
    const { connectivity } = topologyOf(bare.model);
    const at = (i: number, j: number) => 17 * i + j;
    const seams = bare.seams.slice();
    for (let j = 1; j < 15; j++) seams[findEdge(connectivity, at(6, j), at(6, j + 1))] = 1;
    const document = { ...bare, seams };
    const through = [at(4, 1), at(4, 15)];
    const straight = await answerQuestion(document, 'route', { through, hidden: 0 }, context);
    expect(straight.edges).toHaveLength(14);
    expect(straight.edges.some((e) => seams[e])).toBe(false);
    const following = await answerQuestion(document, 'route', { through, hidden: 0, follow: true }, context);
    // Along the seam, or along the border, which is as good as one.
    expect(following.edges.filter((e) => seams[e] || !connectivity.isInterior[e]).length).toBeGreaterThan(10);
  });
});
