import { describe, expect, it } from 'vitest';
import { openDocument } from '../document/document.ts';
import { localJobs } from '../jobs/index.ts';
import { connectivityOf, findEdge } from '../mesh/connectivity.ts';
import { meshFromPolygons } from '../mesh/mesh.ts';
import { modelFromMesh } from '../mesh/model.ts';
import { faceNormals } from '../mesh/normals.ts';
import { unattended } from '../progress.ts';
import { answerQuestion } from '../questions/index.ts';
import { meshOfShell } from '../surface/cutShell.ts';
import { signedDihedral } from '../surface/dihedral.ts';
import { cube, sheet, torus, wholeShell } from '../testing/shapes.ts';
import { seeded } from '../testing/wander.ts';
import { borderOfFaces } from './borderOfFaces.ts';
import { connectedFaces } from './connected.ts';
import { edgeRing } from './edgeRing.ts';
import { foldChain } from './foldChain.ts';
import { levelFaces } from './levelFaces.ts';
import { grownEdges, grownFaces, shrunkEdges, shrunkFaces } from './neighbourhood.ts';
import { straightOn } from './straightOn.ts';

const flat = sheet(6, 6, (i, j) => [j, i, 0]);
const flatLinks = connectivityOf(flat);
const face = (i: number, j: number) => 6 * i + j;
const sorted = (list: Iterable<number>) => [...list].sort((a, b) => a - b);

describe('growing and shrinking', () => {
  it('takes the eight faces round one, and gives them back', () => {
    const grown = grownFaces(flat, [face(2, 3)]);
    expect(grown).toHaveLength(9);
    expect(shrunkFaces(flat, flatLinks, grown)).toEqual([face(2, 3)]);
    expect(grownFaces(flat, [])).toEqual([]);
    expect(shrunkFaces(flat, flatLinks, [])).toEqual([]);
  });

  it('does not shrink away from the inside, but from where the mesh ends', () => {
    const all = Array.from({ length: 36 }, (_, f) => f);
    expect(shrunkFaces(flat, flatLinks, all)).toHaveLength(16);
    const ring = torus(8, 6);
    const whole = Array.from({ length: 48 }, (_, f) => f);
    expect(shrunkFaces(ring, connectivityOf(ring), whole)).toHaveLength(48);
  });

  it('takes the six edges that meet one, and gives them back', () => {
    const e = findEdge(flatLinks, 24, 25);
    const grown = grownEdges(flatLinks, [e]);
    expect(grown).toHaveLength(7);
    expect(shrunkEdges(flatLinks, grown)).toEqual([e]);
  });
});

describe('straight on', () => {
  it('is the loop on a grid of quads, ends at borders, and at seams', () => {
    const e = findEdge(flatLinks, 24, 25);
    expect(sorted(straightOn(flat, flatLinks, e))).toEqual(
      sorted(Array.from({ length: 6 }, (_, j) => findEdge(flatLinks, 21 + j, 22 + j))),
    );
    const seams = new Uint8Array(flatLinks.isInterior.length);
    seams[findEdge(flatLinks, 19, 26)] = 1;
    expect(straightOn(flat, flatLinks, e, seams)).toHaveLength(5);
    expect(straightOn(flat, flatLinks, findEdge(flatLinks, 0, 1))).toHaveLength(1);
  });

  it('goes once round a ring, and keeps its heading over triangles that lead aside', () => {
    const ring = torus(16, 12);
    const connectivity = connectivityOf(ring);
    expect(straightOn(ring, connectivity, findEdge(connectivity, 0, 12))).toHaveLength(16);
    // A plane whose triangles all slant the same way, and points shaken: no row of edges runs along x.
    const random = seeded(7);
    const shaken = meshOfShell(
      wholeShell(sheet(40, 40, (i, j) => [j + 0.4 * i + 0.5 * random(), i + 0.5 * random(), 0])),
    );
    const own = connectivityOf(shaken);
    const first = findEdge(own, 41 * 20 + 20, 41 * 20 + 21);
    const run = straightOn(shaken, own, first);
    const places = run.flatMap((e) =>
      [0, 1].map((k) =>
        shaken.positions.subarray(3 * own.edgeVertices[2 * e + k], 3 * own.edgeVertices[2 * e + k] + 3),
      ),
    );
    expect(run.length).toBeGreaterThan(30);
    // The line through the first edge: what is carried over keeps the run within an edge or two of it.
    const [a, b] = [0, 1].map((k) => shaken.positions.subarray(3 * own.edgeVertices[2 * first + k]));
    const length = Math.hypot(b[0] - a[0], b[1] - a[1]);
    for (const [x, y] of places)
      expect(Math.abs((x - a[0]) * (b[1] - a[1]) - (y - a[1]) * (b[0] - a[0])) / length).toBeLessThan(2.5);
  });
});

describe('the border of faces', () => {
  it('is the outline of a block, without where the mesh ends', () => {
    expect(borderOfFaces(flatLinks, [face(2, 2), face(2, 3)])).toHaveLength(6);
    expect(borderOfFaces(flatLinks, [face(0, 0)])).toHaveLength(2);
    expect(
      borderOfFaces(
        flatLinks,
        Array.from({ length: 36 }, (_, f) => f),
      ),
    ).toEqual([]);
  });
});

describe('what hangs together', () => {
  it('is a piece, and no other', () => {
    const two = meshFromPolygons(
      [
        [0, 0, 0],
        [1, 0, 0],
        [0, 1, 0],
        [5, 0, 0],
        [6, 0, 0],
        [5, 1, 0],
      ],
      [
        [0, 1, 2],
        [3, 4, 5],
      ],
    );
    expect(connectedFaces(two, connectivityOf(two), [1])).toEqual([1]);
    expect(connectedFaces(flat, flatLinks, [7])).toHaveLength(36);
  });
});

describe('edges side by side', () => {
  it('run across a strip of quads, to the border or round', () => {
    const across = edgeRing(flat, flatLinks, findEdge(flatLinks, 16, 17));
    expect(across).toHaveLength(7);
    expect(across).toContain(findEdge(flatLinks, 2, 3));
    const ring = torus(9, 7);
    const connectivity = connectivityOf(ring);
    expect(edgeRing(ring, connectivity, findEdge(connectivity, 0, 7))).toHaveLength(7);
    expect(edgeRing(ring, connectivity, findEdge(connectivity, 0, 1))).toHaveLength(9);
    expect(edgeRing(ring, connectivity, findEdge(connectivity, 0, 1)).length).toBe(
      new Set(edgeRing(ring, connectivity, findEdge(connectivity, 0, 1))).size,
    );
  });
});

/** A sheet with a ridge along x = 3 and a fold along x = 6. */
const bent = sheet(5, 9, (i, j) => [j, i, j < 4 ? j : j < 7 ? 6 - j : j - 6]);
const bentLinks = connectivityOf(bent);
const bentNormals = faceNormals(bent);
const alongColumn = (j: number) =>
  Array.from({ length: 5 }, (_, i) => findEdge(bentLinks, 10 * i + j, 10 * (i + 1) + j));

describe('folds', () => {
  it('have their sign: above 0 over a ridge, below 0 in a fold', () => {
    const at = (j: number) => signedDihedral(bent, bentLinks, bentNormals, alongColumn(j)[2]);
    expect(at(3)).toBeCloseTo(Math.PI / 2, 6);
    expect(at(6)).toBeCloseTo(-Math.PI / 2, 6);
    expect(at(2)).toBeCloseTo(0, 6);
    expect(signedDihedral(bent, bentLinks, bentNormals, findEdge(bentLinks, 0, 1))).toBe(0);
    const box = cube();
    const connectivity = connectivityOf(box);
    expect(signedDihedral(box, connectivity, faceNormals(box), findEdge(connectivity, 0, 1))).toBeCloseTo(
      Math.PI / 2,
      6,
    );
  });

  it('are followed from end to end, and no other with them', () => {
    for (const j of [3, 6]) {
      const chain = foldChain(bent, bentLinks, bentNormals, alongColumn(j)[2]);
      expect(sorted(chain)).toEqual(sorted(alongColumn(j)));
    }
    const level = alongColumn(1)[2];
    expect(foldChain(bent, bentLinks, bentNormals, level)).toEqual([level]);
  });

  it('bound level ground', () => {
    expect(levelFaces(bent, bentLinks, bentNormals, [0], 0.1)).toHaveLength(15);
    expect(levelFaces(bent, bentLinks, bentNormals, [0], 1.6)).toHaveLength(45);
    const isSeam = (e: number) => alongColumn(2).includes(e);
    expect(levelFaces(bent, bentLinks, bentNormals, [0], 0.1, isSeam)).toHaveLength(10);
  });
});

describe('asked of a document', () => {
  const context = { ...unattended, jobs: localJobs };
  const document = openDocument(modelFromMesh('bent', bent));

  it('changes what is picked, of points, edges and faces alike', async () => {
    const ask = (params: object) => answerQuestion(document, 'changed-pick', params as never, context);
    expect((await ask({ how: 'level', faces: [0], angle: 10 })).faces).toHaveLength(15);
    expect((await ask({ how: 'fold', edges: [alongColumn(3)[0]] })).edges).toHaveLength(5);
    expect((await ask({ how: 'border', faces: [11] })).edges).toHaveLength(4);
    expect((await ask({ how: 'connected', edges: [3] })).faces).toHaveLength(45);
    expect(await ask({ how: 'grow', edges: [], faces: [] })).toEqual({ points: [], edges: [], faces: [] });
    const whole = await ask({ how: 'connected', points: [0] });
    expect(whole.points).toHaveLength(bent.positions.length / 3);
    expect(whole.faces).toEqual([]);
    const grown = await ask({ how: 'grow', points: [0] });
    expect(grown).toMatchObject({ edges: [], faces: [] });
    expect((await ask({ how: 'shrink', points: grown.points })).points.length).toBeLessThan(
      grown.points.length,
    );
    await expect(ask({ how: 'grow', points: [1e6] })).rejects.toThrow(/points are not there/);
    await expect(ask({ how: 'grow', edges: [9999] })).rejects.toThrow(/no edge 9999/);
  });

  it('finds edges by rule, as sharp as is asked for', async () => {
    const by = (rule: 'crease' | 'material' | 'uv' | 'part', angle?: number) =>
      answerQuestion(document, 'chosen', { of: 'edges', by: { rule, ...(angle && { angle }) } }, context);
    expect(sorted(await by('crease', 90))).toEqual(sorted([...alongColumn(3), ...alongColumn(6)]));
    expect(await by('crease', 91)).toEqual([]);
    expect(await by('material')).toEqual([]);
    expect(await by('uv')).toEqual([]);
    const material = Int32Array.from({ length: 45 }, (_, f) => (f % 9 < 2 ? 0 : 1));
    const two = openDocument({
      ...document.model,
      faceMaterial: material,
      materials: [{ name: 'Oak' }, { name: 'Tar' }],
    });
    const found = await answerQuestion(two, 'chosen', { of: 'edges', by: { rule: 'material' } }, context);
    expect(sorted(found)).toEqual(sorted(alongColumn(2)));
  });

  it('covers with a brush what is near, and hangs together', async () => {
    const params = { target: 'faces', face: 20, at: [2.5, 2.5, 2.5], radius: 0.9 } as const;
    const near = await answerQuestion(document, 'in-ball', params, context);
    expect(near).toContain(20);
    expect(near.length).toBeLessThan(10);
    const edges = await answerQuestion(
      document,
      'in-ball',
      { ...params, target: 'edges', radius: 1.3 },
      context,
    );
    expect(edges.length).toBeGreaterThan(3);
  });
});
