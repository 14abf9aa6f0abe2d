import { describe, expect, it } from 'vitest';
import { applyDelta, inverse } from '../../document/delta.ts';
import { current, type HemDocument, openDocument, shellsOf, topologyOf } from '../../document/document.ts';
import { emptyHistory, type History, type KeptAct, record } from '../../document/history.ts';
import { findEdge } from '../../mesh/connectivity.ts';
import { modelFromMesh } from '../../mesh/model.ts';
import { applyKept } from '../../persistence/validateDelta.ts';
import { findFault } from '../../persistence/validateDocument.ts';
import { after } from '../../testing/acts.ts';
import { cube } from '../../testing/shapes.ts';
import { carryOut, request } from '../catalogue.ts';
import { localContext } from '../localContext.ts';

const start = () => openDocument(modelFromMesh('Cube', cube()));
const lidOf = ({ model }: HemDocument): number[] => {
  const { connectivity } = topologyOf(model);
  return [4, 5, 6, 7].map((a, i, ring) => findEdge(connectivity, a, ring[(i + 1) % 4]));
};
/** A cube whose lid is off and flat in the first set, and a second set, current, that has no seams yet. */
const twoSets = async () =>
  after(
    start(),
    request('cut', { edges: lidOf(start()) }),
    request('unfold', { shells: 'all' }),
    request('add-uv-set', { name: 'Light' }),
  );
const names = ({ uvSets }: HemDocument) => uvSets.map(({ id, name }) => `${id} ${name}`);

describe('UV sets', () => {
  it('have seams, marks and UVs each of their own', async () => {
    const both = await twoSets();
    expect(names(both)).toEqual(['0 UV', '1 Light']);
    expect(both.currentUv).toBe(1);
    expect(shellsOf(both).shellCount).toBe(1);
    expect(both.seams.includes(1)).toBe(false);
    expect(both.placed).toBe(0);
    expect(current(both).uv.every(Number.isNaN)).toBe(true);
    const first = await after(both, request('use-uv-set', { set: 0 }));
    expect(shellsOf(first).shellCount).toBe(2);
    expect(current(first).uv.some(Number.isNaN)).toBe(false);
    // What is done in one changes nothing in the other, and what is of the model is of both.
    const { connectivity } = topologyOf(first.model);
    const locked = await after(
      first,
      request('hide', { faces: [2] }),
      request('lock-shells', { shells: [0], locked: true }),
    );
    const back = await after(locked, request('use-uv-set', { set: 1 }));
    expect(back.locked.includes(1)).toBe(false);
    expect(back.hidden[2]).toBe(1);
    const cutThere = await after(back, request('cut', { edges: [findEdge(connectivity, 0, 1)] }));
    const again = await after(cutThere, request('use-uv-set', { set: 0 }));
    expect(again.seams).toEqual(first.seams);
    expect(current(again).uv).toEqual(current(first).uv);
    expect(again.locked.includes(1)).toBe(true);
  });

  it('begin as a copy of the current one, or as one of the file', async () => {
    const flat = await after(start(), request('cut', { edges: lidOf(start()) }), request('unfold', {}));
    const copy = await after(flat, request('add-uv-set', { name: 'Copy', from: 'copy' }));
    expect(current(copy).uv).toEqual(current(flat).uv);
    expect(copy.seams).toEqual(flat.seams);
    const uv = Float64Array.from({ length: 48 }, (_, i) => ((i >> 1) % 4 === (i & 1) ? 0.5 : 0));
    const model = { ...modelFromMesh('Cube', cube()), uvSets: [{ name: 'Own', uv }] };
    const discarded = openDocument(model, { keepUvs: false });
    const taken = await after(discarded, request('add-uv-set', { name: 'Own', from: 'file' }));
    expect(current(taken).uv).toEqual(uv);
    expect(taken.placed).toBe(1);
    expect(taken.seams.includes(1)).toBe(true);
    await expect(after(taken, request('add-uv-set', { name: 'X', from: 'file', place: 1 }))).rejects.toThrow(
      /no such UV set/,
    );
  });

  it('are renamed and removed; the last stays, names and ids are never given twice', async () => {
    const both = await twoSets();
    await expect(after(both, request('rename-uv-set', { set: 1, name: 'UV' }))).rejects.toThrow(/already/);
    await expect(after(both, request('add-uv-set', { name: 'Light' }))).rejects.toThrow(/already/);
    await expect(after(both, request('use-uv-set', { set: 5 }))).rejects.toThrow(/not there any more/);
    const one = await after(
      both,
      request('rename-uv-set', { set: 1, name: 'Bake' }),
      request('remove-uv-set', { set: 1 }),
    );
    expect(names(one)).toEqual(['0 UV']);
    expect(one.currentUv).toBe(0);
    expect(shellsOf(one).shellCount).toBe(2);
    await expect(after(one, request('remove-uv-set', { set: 0 }))).rejects.toThrow(/last UV set stays/);
    expect(names(await after(one, request('add-uv-set', { name: 'New' })))).toEqual(['0 UV', '2 New']);
    // The first of them, while it is current and while it is not.
    for (const set of [0, 1]) {
      const left = await after(both, request('use-uv-set', { set }), request('remove-uv-set', { set: 0 }));
      expect(names(left)).toEqual(['1 Light']);
      expect(left.currentUv).toBe(1);
      expect(findFault(left)).toBeUndefined();
    }
  });

  it('are told by their lasting ids in history: everything is undone exactly, and fits when it is read back', async () => {
    let document = start();
    let history: History<KeptAct> = emptyHistory;
    const states = [document];
    const requests = [
      request('add-uv-set', { name: 'Light', from: 'copy' }),
      request('cut', { edges: lidOf(document) }),
      request('unfold', { shells: 'all' }),
      request('use-uv-set', { set: 0 }),
      request('cut', { edges: lidOf(document).slice(0, 3) }),
      request('delete-faces', { faces: [5] }),
      request('use-uv-set', { set: 1 }),
      request('rename-uv-set', { set: 1, name: 'Bake' }),
      request('remove-uv-set', { set: 0 }),
    ];
    for (const [group, each] of requests.entries()) {
      const outcome = await carryOut(document, each, localContext);
      document = applyDelta(document, outcome.delta);
      history = record(history, { operation: each.operation, ...outcome, group });
      states.push(document);
      expect(findFault(document)).toBeUndefined();
    }
    for (let i = states.length - 1; i > 0; i--) {
      document = applyKept(document, inverse(history.acts[i - 1].delta));
      expect(document).toEqual(states[i - 1]);
    }
    for (const { delta } of history.acts) document = applyKept(document, delta);
    expect(document).toEqual(states[states.length - 1]);
    // What does not fit is refused.
    const { delta } = history.acts[history.acts.length - 1];
    expect(() => applyKept(states[0], delta)).toThrow(/does not fit/);
    expect(() =>
      applyKept(document, { changes: [{ kind: 'set-switched', before: 1, after: 9 }], notes: [] }),
    ).toThrow();
  });
});
