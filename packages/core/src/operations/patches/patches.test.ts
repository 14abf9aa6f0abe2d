import { describe, expect, it } from 'vitest';
import { applyDelta, inverse } from '../../document/delta.ts';
import { type HemDocument, openDocument, topologyOf } from '../../document/document.ts';
import { emptyHistory } from '../../document/history.ts';
import { modelFromMesh } from '../../mesh/model.ts';
import { readProject, writeProject } from '../../persistence/projectFile.ts';
import { applyKept } from '../../persistence/validateDelta.ts';
import { findFault } from '../../persistence/validateDocument.ts';
import { edgesByRule } from '../../seams/fromRules.ts';
import { after } from '../../testing/acts.ts';
import { cube, sheet } from '../../testing/shapes.ts';
import { carryOut, request } from '../catalogue.ts';
import { localContext } from '../localContext.ts';

const start = openDocument(modelFromMesh('Cube', cube()));
const roundPatches = (document: HemDocument) =>
  edgesByRule(document, topologyOf(document.model).connectivity, 'patch', 0);

describe('patches', () => {
  it('are made of faces, which are of one at most, and leave numbers to the others when removed', async () => {
    const two = await after(
      start,
      request('paint-patch', { faces: [0, 1, 2], patch: 'new' }),
      request('paint-patch', { faces: [2, 3], patch: 'new', name: 'Side' }),
    );
    expect([...two.patches]).toEqual([1, 1, 2, 2, 0, 0]);
    expect(two.patchNames).toEqual(['Patch 1', 'Side']);
    const one = await after(two, request('remove-patch', { patch: 1 }));
    expect([...one.patches]).toEqual([0, 0, 2, 2, 0, 0]);
    expect(one.patchNames).toEqual(['', 'Side']);
    const again = await after(one, request('paint-patch', { faces: [5], patch: 'new' }));
    expect([...again.patches]).toEqual([0, 0, 2, 2, 0, 1]);
    expect([two, one, again].map(findFault)).toEqual([undefined, undefined, undefined]);
  });

  it('are undone exactly, checked as they are kept, and carried along when faces are deleted', async () => {
    const one = await after(start, request('paint-patch', { faces: [1, 4], patch: 'new' }));
    const { delta } = await carryOut(
      one,
      request('paint-patch', { faces: [0, 1], patch: 'new' }),
      localContext,
    );
    const two = applyKept(one, delta);
    expect([...two.patches]).toEqual([2, 2, 0, 0, 1, 0]);
    expect(applyDelta(two, inverse(delta))).toEqual(one);
    expect(() => applyKept(start, delta)).toThrow(/does not fit/);
    const less = await after(two, request('delete-faces', { faces: [1] }));
    expect([...less.patches]).toEqual([2, 0, 0, 1, 0]);
  });

  it('are made of shells, and cut out by rule', async () => {
    const cut = await after(
      start,
      request('cut', {
        edges: roundPatches(await after(start, request('paint-patch', { faces: [0], patch: 'new' }))),
      }),
      request('patch-shells', { shells: 'all' }),
    );
    expect([...cut.patches].sort()).toEqual([1, 2, 2, 2, 2, 2]);
    // A face of a cube has four sides.
    expect(roundPatches(cut)).toHaveLength(4);
  });

  it('can be hundreds: their numbers are kept whole, through deleting faces, a project file and a store', async () => {
    const sheetOf = openDocument(
      modelFromMesh(
        'Sheet',
        sheet(20, 20, (i, j) => [j, i, 0]),
      ),
    );
    const cut = await after(
      sheetOf,
      request('cut', { edges: [...topologyOf(sheetOf.model).connectivity.isInterior.keys()] }),
    );
    const painted = await after(cut, request('patch-shells', { shells: 'all' }));
    expect(painted.patchNames).toHaveLength(400);
    expect(Math.max(...painted.patches)).toBe(400);
    const fewer = await after(painted, request('delete-faces', { faces: [0, 399] }));
    expect(Math.max(...fewer.patches)).toBe(399);
    expect(findFault(fewer)).toBeUndefined();
    const file = await writeProject({ name: 'S', document: fewer, history: emptyHistory, trials: [] });
    const { project, loss } = await readProject(file, 's.hemproject');
    expect(loss).toBeUndefined();
    expect(project.document.patches).toEqual(fewer.patches);
    // The last of them alone, and the borders of all.
    const last = await after(fewer, request('remove-patch', { patch: 399 }));
    expect(last.patches.filter((patch) => patch === 399)).toHaveLength(0);
    expect(last.patches.filter((patch) => patch === 143)).toHaveLength(1);
  });

  it('say what cannot be', async () => {
    await expect(after(start, request('paint-patch', { faces: [0], patch: 3 }))).rejects.toThrow(
      'There is no patch 3.',
    );
    await expect(after(start, request('remove-patch', { patch: 1 }))).rejects.toThrow('There is no patch 1.');
    const two = await after(start, request('paint-patch', { faces: [0], patch: 'new' }));
    const both = await after(two, request('paint-patch', { faces: [1], patch: 'new' }));
    await expect(after(both, request('name-patch', { patch: 2, name: 'Patch 1' }))).rejects.toThrow(
      'There is a patch “Patch 1” already.',
    );
    const full = { ...start, patchNames: Array.from({ length: 4095 }, (_, i) => `${i}`) };
    await expect(after(full, request('paint-patch', { faces: [0], patch: 'new' }))).rejects.toThrow(
      /4095 patches/,
    );
    const { delta } = await carryOut(
      start,
      request('paint-patch', { faces: [0], patch: 'none' }),
      localContext,
    );
    expect(delta.notes).toEqual(['None of these faces was in a patch.']);
    expect(findFault({ ...start, patches: Uint16Array.of(0, 1, 0, 0, 0, 0) })).toBe(
      'a face is of a patch that is not there',
    );
  });
});
