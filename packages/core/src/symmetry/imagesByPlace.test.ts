import { describe, expect, it } from 'vitest';
import { openDocument } from '../document/document.ts';
import { localJobs } from '../jobs/index.ts';
import { connectivityOf, findEdge } from '../mesh/connectivity.ts';
import { type Mesh, meshFromPolygons } from '../mesh/mesh.ts';
import { modelFromMesh } from '../mesh/model.ts';
import { unattended } from '../progress.ts';
import { answerQuestion } from '../questions/index.ts';
import { runsOfEdges } from '../select/orderedRun.ts';
import { isometryOf, type Symmetry } from './findSymmetry.ts';
import { edgesByPlace, facesByPlace } from './imagesByPlace.ts';

const ROWS = 12;
/** Columns to the left of x = 0, where faces are quads, and to the right, where they are triangles. */
const [LEFT, RIGHT] = [8, 11];
const height = (x: number, z: number) => Math.exp(-(x * x) / 8 - (z - 2) ** 2 / 6) + 0.1 * z;

/** A hill over x from −4 to 4, the same on both sides of x = 0 and meshed differently there. */
function lopsidedMesh(): Record<'left' | 'right', (i: number, j: number) => number> & { mesh: Mesh } {
  const points: number[][] = [];
  const at = new Map<string, number>();
  const vertex = (x: number, z: number): number => {
    const key = `${x.toFixed(6)} ${z.toFixed(6)}`;
    const known = at.get(key);
    if (known !== undefined) return known;
    at.set(key, points.length);
    points.push([x, height(x, z), z]);
    return points.length - 1;
  };
  const z = (i: number) => (8 * i) / ROWS;
  const left = (i: number, j: number) => vertex(-4 + (4 * j) / LEFT, z(i));
  const right = (i: number, j: number) => vertex((4 * j) / RIGHT, z(i));
  const faces: number[][] = [];
  for (let i = 0; i < ROWS; i++) {
    for (let j = 0; j < LEFT; j++)
      faces.push([left(i, j), left(i + 1, j), left(i + 1, j + 1), left(i, j + 1)]);
    for (let j = 0; j < RIGHT; j++) {
      const [a, b, c, d] = [right(i, j), right(i + 1, j), right(i + 1, j + 1), right(i, j + 1)];
      faces.push([a, b, c], [a, c, d]);
    }
  }
  return { mesh: meshFromPolygons(points, faces), left, right };
}

const MIRROR: Symmetry = { kind: 'mirror', direction: [1, 0, 0], through: [0, 0, 0], fold: 2 };
const { mesh, left, right } = lopsidedMesh();
const connectivity = connectivityOf(mesh);
const isometry = isometryOf(MIRROR);
const edgesOf = (vertices: readonly number[]) =>
  vertices.slice(1).map((v, i) => findEdge(connectivity, vertices[i], v));
const place = (v: number) => [...mesh.positions.subarray(3 * v, 3 * v + 3)];

describe('images by place', () => {
  it('are one run on the other side, as near as its vertices let it be, that ends on the mirror plane', () => {
    // From the side to the middle, then along the plane.
    const row = edgesOf([0, 1, 2, 3, 4, 5, 6, 7, 8].map((j) => left(5, j)));
    const { items, off } = edgesByPlace(mesh, connectivity, isometry, row);
    const [run, ...more] = runsOfEdges(connectivity, items);
    expect(more).toEqual([]);
    const ends = [run.vertices[0], run.vertices[run.vertices.length - 1]]
      .map(place)
      .sort((a, b) => a[0] - b[0]);
    expect(ends[0]).toEqual(place(left(5, 8)));
    expect(ends[1][0]).toBeCloseTo(4, 6);
    for (const v of run.vertices) {
      expect(place(v)[0]).toBeGreaterThanOrEqual(0);
      expect(place(v)[2]).toBeCloseTo(place(left(5, 0))[2], 6);
    }
    // Nowhere farther off than half a face.
    expect(off).toBeLessThan(0.5 * Math.hypot(4 / RIGHT, 8 / ROWS));
  });

  it('keep what lies on the plane, and take a closed run to a closed one', () => {
    const middle = edgesOf([2, 3, 4, 5].map((i) => left(i, LEFT)));
    expect(new Set(edgesByPlace(mesh, connectivity, isometry, middle).items)).toEqual(new Set(middle));
    const ring = edgesOf([
      ...[2, 3, 4, 5, 6].map((j) => left(3, j)),
      ...[4, 5, 6, 7].map((i) => left(i, 6)),
      ...[5, 4, 3, 2].map((j) => left(7, j)),
      ...[6, 5, 4, 3].map((i) => left(i, 2)),
    ]);
    const [run, ...more] = runsOfEdges(connectivity, edgesByPlace(mesh, connectivity, isometry, ring).items);
    expect(more).toEqual([]);
    expect(run.closed).toBe(true);
    expect(run.vertices.every((v) => place(v)[0] > 0)).toBe(true);
  });

  it('are the edges themselves where these go onto themselves within an edge: no second ring beside the first', () => {
    // From x = −2 to 1.8, right across the plane: what goes to 2 has no vertex there.
    const across = [
      ...[4, 5, 6, 7].map((j) => left(3, j)),
      ...[0, 1, 2, 3, 4].map((j) => right(3, j)),
      ...[3, 4, 5, 6].map((i) => right(i, 5)),
      ...[5, 4, 3, 2, 1].map((j) => right(7, j)),
      ...[8, 7, 6, 5].map((j) => left(7, j)),
      ...[7, 6, 5, 4, 3].map((i) => left(i, 4)),
    ];
    const ring = edgesOf(across);
    const { items, off } = edgesByPlace(mesh, connectivity, isometry, ring);
    expect(new Set(items)).toEqual(new Set(ring));
    // What goes to x = 2 is told to be off by what it is: the column is at 1.82.
    expect(off).toBeCloseTo(2 - 20 / RIGHT, 1);
    // A row that ends on a column along the plane: its image ends there too.
    const fork = [
      ...edgesOf([2, 3, 4, 5, 6, 7].map((i) => left(i, LEFT))),
      ...edgesOf([3, 4, 5, 6, 7, 8].map((j) => left(5, j))),
    ];
    const both = new Set([...fork, ...edgesByPlace(mesh, connectivity, isometry, fork).items]);
    const at = [...both].filter((e) =>
      [0, 1].some((k) => connectivity.edgeVertices[2 * e + k] === left(5, LEFT)),
    );
    expect(at).toHaveLength(4);
  });

  it('are faces that lie where theirs go', () => {
    const faces = [...Array(mesh.faceStart.length - 1).keys()].filter((f) => {
      const [x, , z] = place(mesh.cornerVertex[mesh.faceStart[f]]);
      return x < -1 && x > -3 && z > 2 && z < 5;
    });
    const { items } = facesByPlace(mesh, connectivity, isometry, faces);
    expect(items.length).toBeGreaterThan(faces.length / 2);
    for (const f of items) expect(place(mesh.cornerVertex[mesh.faceStart[f]])[0]).toBeGreaterThan(0.5);
  });

  it('are asked for where the mesh is not symmetric and the surface is; a plane that the surface is not mirrored in is refused', async () => {
    const context = { ...unattended, jobs: localJobs };
    const document = openDocument(modelFromMesh('Hill', mesh));
    const found = await answerQuestion(document, 'symmetry', { by: 'mirror' }, context);
    expect(found?.symmetry.direction).toEqual([1, 0, 0]);
    expect(found?.byPlace).toBe(true);
    const row = edgesOf([0, 1, 2].map((j) => left(5, j)));
    const symmetry = { ...MIRROR, direction: [1, 0, 0], through: [0, 0, 0] } as const;
    const images = await answerQuestion(
      document,
      'images-by-place',
      { symmetry, edges: row, faces: [] },
      context,
    );
    expect(images.edges.length).toBeGreaterThan(1);
    expect(images.off).toBeLessThan(1);
    expect(await answerQuestion(document, 'symmetry', { by: 'z' }, context)).toBeUndefined();
    // One that the mesh is symmetric by as well goes by its edges.
    const even = openDocument(
      modelFromMesh(
        'Even',
        meshFromPolygons(
          [
            [-1, 0, 0],
            [0, 0, 0],
            [1, 0, 0],
            [-1, 1, 2],
            [0, 1, 2],
            [1, 1, 2],
          ],
          [
            [0, 3, 4, 1],
            [1, 4, 5, 2],
          ],
        ),
      ),
    );
    expect((await answerQuestion(even, 'symmetry', { by: 'x' }, context))?.byPlace).toBe(false);
  });
});
