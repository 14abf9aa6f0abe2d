import { describe, expect, it } from 'vitest';
import { applyDelta } from '../src/document/delta.ts';
import {
  type HemDocument,
  openDocument,
  shellOf,
  shellsOf,
  shellUv,
  topologyOf,
} from '../src/document/document.ts';
import { figuresOf } from '../src/document/figures.ts';
import { measureStretch } from '../src/measure/stretch.ts';
import { type Mesh, vertexCount } from '../src/mesh/mesh.ts';
import { loosePieces, modelFromMesh } from '../src/mesh/model.ts';
import { carryOut } from '../src/operations/catalogue.ts';
import { localContext } from '../src/operations/localContext.ts';
import { unattended } from '../src/progress.ts';
import { relax } from '../src/relax/relax.ts';
import { METHODS, unfoldShell } from '../src/unfold/unfold.ts';
import { openedShells, openModels } from './openModels.ts';

const meshes: [name: string, mesh: Mesh][] = [
  ['bunny', openModels.bunny()],
  ['teapot', openModels.teapot()],
];

async function after(document: HemDocument, operation: string, params: object): Promise<HemDocument> {
  return applyDelta(document, (await carryOut(document, { operation, params }, localContext)).delta);
}

const figures = (document: HemDocument) =>
  Array.from({ length: shellsOf(document).shellCount }, (_, s) => figuresOf(document, s));

/** V − E + F over what the faces use. */
function euler(mesh: Mesh): number {
  const used = new Set(mesh.cornerVertex).size;
  const { connectivity } = topologyOf(modelFromMesh('m', mesh));
  return used - connectivity.isInterior.length + (mesh.faceStart.length - 1);
}

describe('the bunny', () => {
  const [, mesh] = meshes[0];
  const { connectivity } = topologyOf(modelFromMesh('bunny', mesh));

  it('is read as it is: one closed piece of genus 0', () => {
    expect([vertexCount(mesh), mesh.faceStart.length - 1]).toEqual([1839, 3674]);
    expect(connectivity.isInterior.every((isInterior) => isInterior === 1)).toBe(true);
    expect(loosePieces(mesh, connectivity).count).toBe(1);
    // A closed surface of genus g has V − E + F = 2 − 2g (Euler).
    expect(euler(mesh)).toBe(2);
  });
});

describe.each(meshes)('%s', (_, mesh) => {
  it('opens, unfolds, relaxes and packs without a flipped or collapsed face', async () => {
    let document = openDocument(modelFromMesh('model', mesh));
    for (let round = 0; round < 3; round++) document = await after(document, 'open-pieces', { least: true });
    const topologies = figures(document).map(({ topology }) => topology);
    expect(topologies.filter(({ canUnfold }) => !canUnfold)).toEqual([]);

    document = await after(document, 'unfold', {});
    const unfolded = figures(document);
    for (const { stretch } of unfolded) expect(stretch).toMatchObject({ flipped: 0, collapsed: 0 });

    document = await after(document, 'relax', {});
    for (const [s, { stretch }] of figures(document).entries()) {
      expect(stretch).toMatchObject({ flipped: 0, collapsed: 0 });
      // Relaxing evens out area; a shell that was repaired has been relaxed already.
      const before = unfolded[s].stretch?.areaMean as number;
      if (before > 1.2) expect(stretch?.areaMean).toBeLessThanOrEqual(before);
    }

    document = await after(document, 'pack', {});
    for (let s = 0; s < shellsOf(document).shellCount; s++) {
      const uv = shellUv(document, shellOf(document, s)) as Float64Array;
      expect(Math.min(...uv)).toBeGreaterThan(0);
      expect(Math.max(...uv)).toBeLessThan(1);
    }
  });

  it('gives the same answer twice', async () => {
    const once = async () => {
      const opened = await after(openDocument(modelFromMesh('model', mesh)), 'open-pieces', { least: true });
      return (await after(opened, 'unfold', {})).uvSets[0].uv;
    };
    expect(await once()).toEqual(await once());
  });
});

describe('the dragon', () => {
  it('unfolds by every method and relaxes, piece by piece, without a flipped or collapsed face', async () => {
    const shells = await openedShells(openModels.dragon());
    expect(shells.length).toBeGreaterThan(500);
    for (const shell of shells) {
      for (const method of METHODS) {
        const { uv } = unfoldShell(shell, method, unattended);
        expect(measureStretch(shell, uv)).toMatchObject({ flipped: 0, collapsed: 0 });
        const relaxed = relax(shell, uv, {}, unattended);
        expect(relaxed.energyAfter).toBeLessThanOrEqual(relaxed.energyBefore);
        expect(measureStretch(shell, relaxed.uv)).toMatchObject({ flipped: 0, collapsed: 0 });
      }
    }
  });
});
