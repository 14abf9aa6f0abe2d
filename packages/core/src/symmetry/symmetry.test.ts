import { describe, expect, it } from 'vitest';
import { openDocument } from '../document/document.ts';
import { localJobs } from '../jobs/index.ts';
import { connectivityOf, findEdge } from '../mesh/connectivity.ts';
import { type Mesh, meshFromPolygons } from '../mesh/mesh.ts';
import { modelFromMesh } from '../mesh/model.ts';
import { unattended } from '../progress.ts';
import { answerQuestion } from '../questions/index.ts';
import { sheet, torus } from '../testing/shapes.ts';
import { counterparts } from './counterparts.ts';
import { findMirror, findTurn, isometryOf } from './findSymmetry.ts';
import { imageOf, mirrorIn, reverses, turnAbout } from './isometry.ts';

/** A sheet over x from −4 to 4, mirrored in x = 0, with a hill that makes it so in no other way. */
const hill = sheet(8, 8, (i, j) => [j - 4, i, 0.3 * i + Math.exp(-((j - 4) ** 2) / 4 - (i - 2) ** 2)]);
const connectivity = connectivityOf(hill);

const pushed = (mesh: Mesh, by: number): Mesh => ({
  ...mesh,
  positions: mesh.positions.map((x, i) => x + by * Math.sin(12.9 * i)),
});

describe('isometries', () => {
  it('mirror and turn points', () => {
    const at = Float64Array.of(3, 1, 2);
    expect(imageOf(mirrorIn([1, 0, 0], 1), at, 0)).toEqual([-1, 1, 2]);
    expect(reverses(mirrorIn([0, 1, 0], 5))).toBe(true);
    const quarter = turnAbout([0, 0, 1], [1, 1, 0], Math.PI / 2);
    const [x, y, z] = imageOf(quarter, at, 0);
    expect([x, y, z].map((value) => Math.round(1e9 * value) / 1e9)).toEqual([1, 3, 2]);
    expect(reverses(quarter)).toBe(false);
  });
});

describe('finding what a figure is symmetric by', () => {
  it('finds a plane, also off the origin, and none where there is none', () => {
    expect(findMirror(hill, connectivity)?.direction).toEqual([1, 0, 0]);
    const aside = { ...hill, positions: hill.positions.map((x, i) => (i % 3 === 0 ? x + 7 : x)) };
    const found = findMirror(aside, connectivity);
    expect(found?.through[0]).toBeCloseTo(7, 6);
    const lopsided = sheet(8, 8, (i, j) => [j + 0.2 * i * i, i, 0.4 * Math.sin(i + 2 * j) * j]);
    expect(findMirror(lopsided, connectivityOf(lopsided))).toBeUndefined();
  });

  it('finds how often a ring comes round', () => {
    const ring = torus(10, 7);
    const found = findTurn(ring, connectivityOf(ring));
    expect(found?.fold).toBe(10);
    expect(found?.direction).toEqual([0, 0, 1]);
    expect(findTurn(hill, connectivity)).toBeUndefined();
  });
});

describe('counterparts', () => {
  const symmetry = { kind: 'mirror', direction: [1, 0, 0], through: [0, 0, 0], fold: 2 } as const;

  it('match every element with its image, those on the plane with themselves', () => {
    const { vertices, edges, faces } = counterparts(hill, connectivity, isometryOf(symmetry));
    for (let i = 0; i <= 8; i++) for (let j = 0; j <= 8; j++) expect(vertices[9 * i + j]).toBe(9 * i + 8 - j);
    expect(edges[findEdge(connectivity, 4, 13)]).toBe(findEdge(connectivity, 4, 13));
    expect(edges[findEdge(connectivity, 0, 1)]).toBe(findEdge(connectivity, 7, 8));
    expect(faces[0]).toBe(7);
    expect([...faces].every((g, f) => faces[g] === f)).toBe(true);
  });

  it('hold by how faces hang together where positions are not exact', () => {
    const sure = { ...hill, positions: hill.positions.slice() };
    // All but a few points near the plane are pushed about by a tenth of an edge.
    const moved = pushed(hill, 0.1).positions;
    for (let v = 0; v < 81; v++)
      if (v % 9 < 3 || v % 9 > 5) for (let k = 0; k < 3; k++) sure.positions[3 * v + k] = moved[3 * v + k];
    const { vertices } = counterparts(sure, connectivity, isometryOf(symmetry));
    for (let i = 0; i <= 8; i++) for (let j = 0; j <= 8; j++) expect(vertices[9 * i + j]).toBe(9 * i + 8 - j);
  });

  it('are missing where there is nothing to match', () => {
    const faces = Array.from({ length: 63 }, (_, f) => [...hill.cornerVertex.subarray(4 * f, 4 * f + 4)]);
    const points = Array.from({ length: 81 }, (_, v) => [...hill.positions.subarray(3 * v, 3 * v + 3)]);
    points[80] = [20, 20, 20];
    const torn = meshFromPolygons(points, faces);
    const found = counterparts(torn, connectivityOf(torn), isometryOf(symmetry));
    // The last face is gone, and so is the image of the first of its row.
    expect(found.faces[56]).toBe(-1);
    expect(found.faces[0]).toBe(7);
  });

  it('go round an axis', () => {
    const ring = torus(10, 7);
    const ringLinks = connectivityOf(ring);
    const found = findTurn(ring, ringLinks);
    if (!found) throw new Error('no axis');
    const { vertices, edges } = counterparts(ring, ringLinks, isometryOf(found));
    expect(vertices[0]).toBe(7);
    let e = findEdge(ringLinks, 0, 1);
    for (let k = 0; k < 10; k++) e = edges[e];
    expect(e).toBe(findEdge(ringLinks, 0, 1));
  });

  it('are asked of a document, by what is found or by a plane that is set', async () => {
    const document = openDocument(modelFromMesh('hill', hill));
    const context = { ...unattended, jobs: localJobs };
    const found = await answerQuestion(document, 'symmetry', { by: 'mirror' }, context);
    expect(found?.edges.includes(-1)).toBe(false);
    expect((await answerQuestion(document, 'symmetry', { by: 'x' }, context))?.edges).toEqual(found?.edges);
    // The surface is not mirrored there.
    expect(await answerQuestion(document, 'symmetry', { by: 'y' }, context)).toBeUndefined();
    expect(await answerQuestion(document, 'symmetry', { by: 'turn' }, context)).toBeUndefined();
  });
});
