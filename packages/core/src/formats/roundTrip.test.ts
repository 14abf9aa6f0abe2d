import { describe, expect, it } from 'vitest';
import { openDocument } from '../document/document.ts';
import { emptyHistory } from '../document/history.ts';
import type { Mesh } from '../mesh/mesh.ts';
import { modelFromMesh } from '../mesh/model.ts';
import { triangulate } from '../mesh/triangulate.ts';
import { readProject, writeProjectChecked } from '../persistence/projectFile.ts';
import { meshOfShell } from '../surface/cutShell.ts';
import { dirtyScan, glove, head, spikyBall, tentacle } from '../testing/sculpts.ts';
import { cube, horn, sheet, sphericalCap, torus, tube } from '../testing/shapes.ts';
import { readModel } from './readModel.ts';
import { writeGlb } from './writeGlb.ts';
import { writeObj } from './writeObj.ts';

/** What each exporter writes of every model of the tests, read back by our own readers with their own limits. */

const MODELS: readonly [string, () => Mesh][] = [
  ['cube', cube],
  ['sheet', () => sheet(12, 17, (i, j) => [j / 7, i * 1e3, Math.sin(i * j) / 3])],
  ['torus', () => torus(24, 12)],
  ['cap', () => meshOfShell(sphericalCap(12, 40, 2.2))],
  ['horn', () => meshOfShell(horn(30, 16, 9))],
  ['tube', () => meshOfShell(tube(9, 12, 3))],
  ['glove', () => meshOfShell(glove(24))],
  ['spiky ball', () => meshOfShell(spikyBall(20))],
  ['head', () => meshOfShell(head(20))],
  ['tentacle', () => meshOfShell(tentacle(20))],
  ['dirty scan', () => dirtyScan(20)],
];

/** UVs with breaks, with some corners that have none, and with places outside the tile. */
const uvOf = ({ cornerVertex }: Mesh): Float64Array =>
  Float64Array.from({ length: 2 * cornerVertex.length }, (_, i) =>
    i >> 1 > cornerVertex.length * 0.9 ? Number.NaN : Math.sin(cornerVertex[i >> 1] + (i & 1)) + (i >> 9),
  );

const same = (a: ArrayLike<number>, b: ArrayLike<number>, within: number) => {
  expect(a.length).toBe(b.length);
  let worst = 0;
  for (let i = 0; i < a.length; i++)
    if (!(Number.isNaN(a[i]) && Number.isNaN(b[i]))) worst = Math.max(worst, Math.abs(a[i] - b[i]));
  expect(worst).toBeLessThanOrEqual(within);
};

describe.each(MODELS)('%s', (name, make) => {
  const mesh = make();
  const uv = uvOf(mesh);
  const model = { ...modelFromMesh(name, mesh), uvSets: [{ name: 'UV', uv }] };

  it('comes back from an OBJ with every polygon, point and UV', async () => {
    const back = await readModel(writeObj(model, uv), 'x.obj');
    expect(back.mesh.faceStart).toEqual(mesh.faceStart);
    expect(back.mesh.cornerVertex).toEqual(mesh.cornerVertex);
    same(back.mesh.positions, mesh.positions, 0);
    same(back.uvSets[0].uv, uv, 1e-9);
  });

  it('comes back from a GLB with every triangle and its UVs, in single precision', async () => {
    const known = uv.map((x) => (Number.isNaN(x) ? 0 : x));
    const back = await readModel(await writeGlb(model, [known]), 'x.glb');
    const { triangleCorners } = triangulate(mesh);
    const theirs = triangulate(back.mesh).triangleCorners;
    expect(theirs.length).toBe(triangleCorners.length);
    const places = (m: Mesh, corners: Uint32Array) =>
      Float64Array.from({ length: 3 * corners.length }, (_, i) =>
        Math.fround(m.positions[3 * m.cornerVertex[corners[Math.floor(i / 3)]] + (i % 3)]),
      );
    same(places(back.mesh, theirs), places(mesh, triangleCorners), 0);
    const flat = (list: Float64Array, corners: Uint32Array) =>
      Float64Array.from({ length: 2 * corners.length }, (_, i) => list[2 * corners[i >> 1] + (i & 1)]);
    same(flat(back.uvSets[0].uv, theirs), flat(known, triangleCorners), 1e-6);
  });

  it('comes back from a project file to the bit', async () => {
    const document = openDocument(model);
    const bytes = await writeProjectChecked({ name, document, history: emptyHistory });
    const { project, loss } = await readProject(bytes, 'x');
    expect(loss).toBeUndefined();
    for (const field of ['positions', 'faceStart', 'cornerVertex'] as const)
      same(project.document.model.mesh[field], mesh[field], 0);
    same(project.document.uvSets[0].uv, uv, 0);
    same(project.document.seams, document.seams, 0);
  });
});
