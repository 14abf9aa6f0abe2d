import { describe, expect, it } from 'vitest';
import { type HemDocument, openDocument, shellsOf, topologyOf } from '../document/document.ts';
import { emptyHistory } from '../document/history.ts';
import { localJobs } from '../jobs/index.ts';
import { modelFromMesh } from '../mesh/model.ts';
import { carryOut, request } from '../operations/catalogue.ts';
import { localContext } from '../operations/localContext.ts';
import { answerQuestion } from '../questions/index.ts';
import { memoryPersistence } from '../session/persistence.ts';
import { openSession } from '../session/session.ts';
import { after } from '../testing/acts.ts';
import { cube, sheet } from '../testing/shapes.ts';
import { resolveChosen, SELECTORS } from './index.ts';

/** A box of two materials: its lid is of wood. */
function box(): HemDocument {
  const model = modelFromMesh('Box', cube());
  return openDocument({
    ...model,
    materials: [{ name: 'Iron' }, { name: 'Wood' }],
    faceMaterial: model.faceMaterial.map((_, f) => (f === 1 ? 1 : 0)),
  });
}

/** A roof of two slopes: twice as many quads, another mesh with the same crease. */
const roof = (count: number) =>
  openDocument(
    modelFromMesh(
      'Roof',
      sheet(count, count, (i, j) => [j, Math.abs(2 * i - count) / 2, i]),
    ),
  );

const edgesOf = async (document: HemDocument, by: object): Promise<number[]> =>
  ((await resolveChosen(document, { edges: { by } }, localContext)).params as { edges: number[] }).edges;

describe('what is told by what it is', () => {
  it('is found on any model', async () => {
    expect(await edgesOf(box(), { rule: 'crease' })).toHaveLength(12);
    expect(await edgesOf(box(), { rule: 'material' })).toHaveLength(4);
    expect(new Set(await edgesOf(box(), { round: 'material', name: 'Wood' }))).toEqual(
      new Set(await edgesOf(box(), { rule: 'material' })),
    );
    for (const count of [4, 10])
      expect(await edgesOf(roof(count), { rule: 'crease', angle: 80 })).toHaveLength(count);
    const faces = await resolveChosen(
      box(),
      { faces: { by: { of: 'material', name: 'Wood' } } },
      localContext,
    );
    expect(faces.params).toEqual({ faces: [1] });
    expect(faces.words).toBe('material “Wood”');
    const flat = await after(
      box(),
      request('cut', { edges: { by: { rule: 'material' } } }),
      request('unfold', {}),
    );
    const { params } = await resolveChosen(
      flat,
      { shells: { by: { of: 'material', name: 'Wood' } } },
      localContext,
    );
    expect(params).toEqual({ shells: [1] });
    // The five sides stretch as one shell, the lid does not.
    const stretched = await resolveChosen(
      flat,
      { shells: { by: { where: 'l2', above: 1.05 } } },
      localContext,
    );
    expect((stretched.params as { shells: number[] }).shells).toEqual([0]);
    expect(stretched.words).toBe('shells of stretch L2 above 1.05');
    const worst = await resolveChosen(flat, { shells: { by: { worst: 'l2' } } }, localContext);
    expect((worst.params as { shells: number[] }).shells).toEqual([0]);
    expect(worst.words).toBe('the shell of most stretch L2');
    const none = await answerQuestion(box(), 'chosen', { of: 'shells', by: { worst: 'l2' } }, localContext);
    expect(none).toEqual([]);
  });

  it('is taken by any operation in place of numbers, and told in its label', async () => {
    const session = openSession({
      document: roof(4),
      history: emptyHistory,
      persistence: memoryPersistence(),
      jobs: localJobs,
    });
    const done = await session.perform('cut', { edges: { by: { rule: 'crease', angle: 80 } } });
    expect(done.label).toBe('Cut 4 edges: creases of 80° or more');
    expect(shellsOf(session.document).shellCount).toBe(2);
    const [{ params }] = session.history.acts;
    const { edges } = params as { edges: { by: object; indices: number[] } };
    expect(edges.by).toEqual({ rule: 'crease', angle: 80 });
    expect(edges.indices).toHaveLength(4);
    // Done again on the same model it is the same; on another, without the numbers, what is meant there.
    const again = JSON.parse(JSON.stringify(params));
    const same = await after(roof(4), { operation: 'cut', params: again });
    expect(same.seams).toEqual((await after(roof(4), request('cut', { edges: edges.indices }))).seams);
    const { indices: _, ...meant } = again.edges;
    const other = await after(roof(10), { operation: 'cut', params: { ...again, edges: meant } });
    expect(other.seams.reduce((sum, x) => sum + x, 0)).toBe(10);
    // Locks are heeded as with numbers.
    await session.perform('lock-shells', { shells: 'all', locked: true });
    await expect(session.perform('relax', { shells: { by: { where: 'linf', above: 0.5 } } })).rejects.toThrow(
      /locked/,
    );
  });

  it('is a proposal, the same as one that is shown', async () => {
    const seams = await edgesOf(box(), { proposed: 'rough' });
    const shown = await answerQuestion(box(), 'proposal', { preset: 'rough' }, localContext);
    expect(seams).toEqual(shown.edges);
    expect(seams.length).toBeGreaterThan(2);
    const clean = await edgesOf(box(), { proposed: 'clean', stretch: 1.01 });
    expect(clean.length).toBeGreaterThan(seams.length);
    await expect(edgesOf(box(), { proposed: 'rough', stretch: 0.5 })).rejects.toThrow(
      /"stretch" must be greater/,
    );
  });

  it('is the line in the mirror plane, found or told', async () => {
    const ridge = openDocument(
      modelFromMesh(
        'Ridge',
        sheet(6, 4, (i, j) => [i - 3, 0.2 * (i - 3) ** 2 + 0.1 * j, j]),
      ),
    );
    const { mesh } = ridge.model;
    const { edgeVertices } = topologyOf(ridge.model).connectivity;
    for (const middle of ['found', 'x']) {
      const edges = await edgesOf(ridge, { middle });
      expect(edges).toHaveLength(4);
      for (const e of edges)
        for (const k of [0, 1]) expect(mesh.positions[3 * edgeVertices[2 * e + k]]).toBe(0);
    }
    // It has no mirror image across z.
    await expect(resolveChosen(ridge, { edges: { by: { middle: 'z' } } }, localContext)).rejects.toThrow(
      'There are no edges in the mirror plane across z here.',
    );
  });

  it('is refused in a sentence where it is wrong, or finds nothing', async () => {
    const cut = (edges: object) => carryOut(box(), { operation: 'cut', params: { edges } }, localContext);
    await expect(cut({ by: { rule: 'fold' } })).rejects.toThrow(/edges: "rule" must be one of/);
    await expect(cut({ by: { colour: 'red' } })).rejects.toThrow(
      /edges: they can be told by “rule” or “round” or “proposed” or “middle”/,
    );
    await expect(cut({ by: { rule: 'patch' } })).rejects.toThrow('There are no edges round patches here.');
    await expect(cut({ by: { round: 'material', name: 'Tin' } })).rejects.toThrow(/no material “Tin”/);
    await expect(cut({ by: { round: 'patch', name: '' } })).rejects.toThrow(/not allowed to be empty/);
    const { connectivity } = topologyOf(box().model);
    await expect(cut({ by: { rule: 'crease' }, indices: [connectivity.isInterior.length] })).rejects.toThrow(
      /no edge 12/,
    );
  });

  it.each(SELECTORS.map((each) => [`${each.of} by ${each.key}`, each] as const))(
    '%s has words and a field of its own',
    (_, { of, key }) => {
      expect(SELECTORS.filter((each) => each.of === of && each.key === key)).toHaveLength(1);
    },
  );
});
