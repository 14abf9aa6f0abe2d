import { describe, expect, it } from 'vitest';
import { type HemDocument, openDocument, topologyOf } from '../../document/document.ts';
import { applyPatch, inverse } from '../../document/patch.ts';
import { unsoundness } from '../../keeping/soundDocument.ts';
import { applyKept } from '../../keeping/soundPatch.ts';
import { modelFromMesh } from '../../mesh/model.ts';
import { edgesByRule } from '../../seams/fromRules.ts';
import { after } from '../../testing/acts.ts';
import { cube } from '../../testing/shapes.ts';
import { carryOut, request } from '../catalogue.ts';
import { localContext } from '../localContext.ts';

const start = openDocument(modelFromMesh('Cube', cube()));
const roundPatches = (document: HemDocument) =>
  edgesByRule(document, topologyOf(document.model).links, 'patch', 0);

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
    expect([two, one, again].map(unsoundness)).toEqual([undefined, undefined, undefined]);
  });

  it('are undone exactly, checked as they are kept, and carried along when faces are deleted', async () => {
    const one = await after(start, request('paint-patch', { faces: [1, 4], patch: 'new' }));
    const { patch } = await carryOut(
      one,
      request('paint-patch', { faces: [0, 1], patch: 'new' }),
      localContext,
    );
    const two = applyKept(one, patch);
    expect([...two.patches]).toEqual([2, 2, 0, 0, 1, 0]);
    expect(applyPatch(two, inverse(patch))).toEqual(one);
    expect(() => applyKept(start, patch)).toThrow(/does not fit/);
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
    const full = { ...start, patchNames: Array.from({ length: 255 }, (_, i) => `${i}`) };
    await expect(after(full, request('paint-patch', { faces: [0], patch: 'new' }))).rejects.toThrow(
      /255 patches/,
    );
    const { patch } = await carryOut(
      start,
      request('paint-patch', { faces: [0], patch: 'none' }),
      localContext,
    );
    expect(patch.notes).toEqual(['None of these faces was in a patch.']);
    expect(unsoundness({ ...start, patches: Uint8Array.of(0, 1, 0, 0, 0, 0) })).toBe(
      'a face is of a patch that is not there',
    );
  });
});
