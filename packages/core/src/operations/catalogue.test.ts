import { describe, expect, it } from 'vitest';
import { applyDelta, inverse } from '../document/delta.ts';
import {
  type HemDocument,
  openDocument,
  shellOf,
  shellsOf,
  shellUv,
  topologyOf,
} from '../document/document.ts';
import { figuresOf, totalsOf } from '../document/figures.ts';
import { emptyHistory, type History, type KeptAct, record, undone } from '../document/history.ts';
import { overlappingFaces } from '../document/overlappingFaces.ts';
import type { Request } from '../document/request.ts';
import { findEdge } from '../mesh/connectivity.ts';
import { modelFromMesh } from '../mesh/model.ts';
import { after } from '../testing/acts.ts';
import { cube, horn, torus } from '../testing/shapes.ts';
import { carryOut, OPERATIONS } from './catalogue.ts';
import { localContext } from './localContext.ts';

const cubeDocument = () => openDocument(modelFromMesh('Cube', cube()));

const edgesOf = (document: HemDocument, pairs: readonly (readonly [number, number])[]) =>
  pairs.map(([a, b]) => findEdge(topologyOf(document.model).connectivity, a, b));

const LID = [
  [4, 5],
  [5, 6],
  [6, 7],
  [7, 4],
] as const;

/** Cut the lid off, unfold, relax, pack, turn, sew. */
/** A face of the lid, and one of the rest. */
const [ON_LID, BELOW] = [1, 0];

function acts(document: HemDocument): Request[] {
  return [
    { operation: 'cut', params: { edges: edgesOf(document, LID) } },
    { operation: 'unfold', params: { shells: 'all' } },
    { operation: 'relax', params: { shells: 'all', steps: 20 } },
    { operation: 'pack', params: {} },
    { operation: 'transform-shells', params: { shells: [ON_LID], matrix: [0, 1, -1, 0, 0.5, 0] } },
    { operation: 'hide', params: { by: 'piece', parts: [0] } },
    { operation: 'sew', params: { edges: edgesOf(document, LID.slice(0, 1)) } },
    { operation: 'unfold', params: { shells: 'stale' } },
  ];
}

describe('the catalogue', () => {
  it('undoes every act exactly, redoes it exactly, and replays it from its JSON', async () => {
    const start = cubeDocument();
    let document = start;
    let history: History<KeptAct> = emptyHistory;
    const states = [start];
    for (const [group, request] of acts(start).entries()) {
      const outcome = await carryOut(document, request, localContext);
      document = applyDelta(document, outcome.delta);
      history = record(history, { operation: request.operation, ...outcome, group });
      states.push(document);
      expect(applyDelta(document, inverse(outcome.delta))).toEqual(states[group]);
    }
    for (let i = states.length - 1; i > 0; i--) {
      document = applyDelta(document, inverse(history.acts[i - 1].delta));
      expect(document).toEqual(states[i - 1]);
    }
    for (const { delta } of history.acts) document = applyDelta(document, delta);
    expect(document).toEqual(states[states.length - 1]);
    const requests = JSON.parse(
      JSON.stringify(history.acts.map(({ operation, params }) => ({ operation, params }))),
    );
    expect(await after(start, ...requests)).toEqual(document);
  });

  it('undoes a group together', async () => {
    const start = cubeDocument();
    let history: History = emptyHistory;
    for (const request of acts(start).slice(0, 2))
      history = record(history, { ...request, label: '', group: 7 });
    expect(undone(history)).toBe(0);
  });

  it('has every operation once, at a stage, with words for what it does', () => {
    expect(new Set(OPERATIONS.map(({ name }) => name)).size).toBe(OPERATIONS.length);
    for (const { doing, stage } of OPERATIONS) {
      expect(doing).toMatch(/^[A-Z]/);
      expect(stage).toBeTruthy();
    }
  });

  it.each(OPERATIONS.map(({ name }) => name))(
    '%s refuses parameters it does not know, in a sentence',
    async (name) => {
      const refused = carryOut(cubeDocument(), { operation: name, params: { nonsense: 1 } }, localContext);
      await expect(refused).rejects.toThrow(new RegExp(`^${name}: .*\\.$`));
    },
  );

  it('breaks UVs at seams and nowhere else, also after sewing', async () => {
    const start = cubeDocument();
    const sewn = await after(start, ...acts(start).slice(0, 7));
    const shells = shellsOf(sewn);
    const { uv } = sewn.uvSets[0];
    const place = new Map<number, string>();
    shells.cornerWedge.forEach((wedge, c) => {
      const here = `${uv[2 * c]} ${uv[2 * c + 1]}`;
      expect(place.get(wedge) ?? here).toBe(here);
      place.set(wedge, here);
    });
    expect(sewn.stale.every((mark) => mark === 1)).toBe(true);
  });

  it('refuses what it does not know, in words', async () => {
    const document = cubeDocument();
    const cases: [Request, RegExp][] = [
      [{ operation: 'fold', params: {} }, /no operation “fold”/],
      [{ operation: 'cut', params: { edges: [99] } }, /no edge 99/],
      [{ operation: 'cut', params: { edges: 'all' } }, /must be an array/],
      [{ operation: 'cut', params: { edges: [-1] } }, /must hold whole numbers/],
      [{ operation: 'cut', params: { edges: [0.5] } }, /must hold whole numbers/],
      [{ operation: 'relax', params: { shells: [6] } }, /no face 6: the model has 6/],
      [{ operation: 'relax', params: {} }, /unfold a shell first/],
      [{ operation: 'pack', params: {} }, /unfold a shell first/],
      [{ operation: 'unfold', params: { shells: [0] } }, /no border to open from/],
      [{ operation: 'unfold', params: { method: 'magic' } }, /must be one of \[conformal, angle-based\]/],
      [{ operation: 'hide', params: { by: 'piece', parts: [3] } }, /no piece 4: the model has 1/],
      [{ operation: 'hide', params: { parts: [0] } }, /contains \[parts\] without/],
      [{ operation: 'hide', params: { faces: [44] } }, /no face 44/],
      [{ operation: 'name-parts', params: { by: 'group', parts: [9], name: 'x' } }, /no group 10/],
      [{ operation: 'name-parts', params: { by: 'piece', parts: [0], name: 'x' } }, /must be one of/],
    ];
    for (const [request, sentence] of cases) {
      await expect(carryOut(document, request, localContext)).rejects.toThrow(sentence);
    }
  });

  it('leaves closed pieces alone when asked for all, and opens them on request', async () => {
    const mesh = torus(12, 8);
    const document = openDocument(modelFromMesh('Torus', mesh));
    await expect(carryOut(document, { operation: 'unfold', params: {} }, localContext)).rejects.toThrow(
      /1 handle/,
    );
    const opened = await after(
      document,
      { operation: 'open-pieces', params: { shells: [0] } },
      { operation: 'unfold', params: {} },
    );
    // A torus needs two loops cut, once round and once across (common practice).
    expect(opened.seams.reduce((a, b) => a + b, 0)).toBeGreaterThanOrEqual(8 + 12 - 1);
    const { stretch } = figuresOf(opened, 0);
    expect(stretch).toMatchObject({ flipped: 0, collapsed: 0 });
  });

  it('keeps a shell where it was, at the scale it had, when it is unfolded again', async () => {
    const start = cubeDocument();
    const packed = await after(start, ...acts(start).slice(0, 4));
    const moved = await after(packed, {
      operation: 'transform-shells',
      params: { shells: [ON_LID, BELOW], matrix: [0.5, 0, 0, 0.5, 0.3, 0.2] },
    });
    const again = await after(moved, { operation: 'unfold', params: { shells: [ON_LID] } });
    const [before, now] = [moved, again].map((d) => figuresOf(d, 1));
    expect(now.stretch?.uvArea).toBeCloseTo(before.stretch?.uvArea as number, 6);
    expect(now.box?.[0]).toBeCloseTo(before.box?.[0] as number, 6);
    expect(now.box?.[3]).toBeCloseTo(before.box?.[3] as number, 6);
  });

  it('relaxes what it can, and tells of shells with flipped faces', async () => {
    const start = cubeDocument();
    const cut = await after(start, ...acts(start).slice(0, 4));
    const mirrored = await after(cut, { operation: 'mirror-in-place', params: { shells: [ON_LID] } });
    const relax = (shells: number[]) =>
      carryOut(mirrored, { operation: 'relax', params: { shells } }, localContext);
    expect((await relax([ON_LID, BELOW])).delta.notes.join()).toMatch(
      /1 shell with flipped or collapsed faces left alone/,
    );
    await expect(relax([ON_LID])).rejects.toThrow(/flipped or collapsed faces/);
    expect((await relax([BELOW])).delta.notes.join()).not.toMatch(/flipped/);
  });

  it('gives new shells room beside the old', async () => {
    const start = cubeDocument();
    const cut = await after(start, ...acts(start).slice(0, 4));
    const wall = edgesOf(cut, [
      [0, 1],
      [1, 2],
      [2, 3],
      [3, 0],
    ]);
    const apart = await after(
      cut,
      { operation: 'cut', params: { edges: wall } },
      { operation: 'unfold', params: { shells: 'stale' } },
    );
    expect(shellsOf(apart).shellCount).toBe(3);
    expect(overlappingFaces(apart).overlaps.length).toBe(0);
  });

  it('sums shells up by their surface', async () => {
    const document = await after(cubeDocument(), ...acts(cubeDocument()).slice(0, 4));
    const totals = totalsOf([0, 1].map((s) => figuresOf(document, s)));
    expect(totals).toMatchObject({ shells: 2, unfolded: 2, flipped: 0 });
    expect(totals.densitySpread).toBeCloseTo(1, 6);
    const uv = shellUv(document, shellOf(document, 0)) as Float64Array;
    expect(uv.every((x) => x > 0 && x < 1)).toBe(true);
  });
});

describe('parts', () => {
  it('renames parts, and joins several under one name, with what hangs on them', async () => {
    const model = {
      ...cubeDocument().model,
      objects: ['a', 'b', 'c'],
      faceObject: Uint32Array.of(0, 1, 2, 2, 1, 0),
      materials: [
        { name: 'x', colour: [1, 0, 0] as const },
        { name: 'y', colour: [0, 0, 1] as const },
      ],
      faceMaterial: Int32Array.of(0, 1, -1, 1, 0, 0),
      objectTransforms: [0, 1, 2].map(() => new Float64Array(16)),
    };
    const start = openDocument(model);
    const after = async (params: object) => {
      const { delta } = await carryOut(start, { operation: 'name-parts', params }, localContext);
      const document = applyDelta(start, delta);
      expect(applyDelta(document, inverse(delta))).toEqual(start);
      return document.model;
    };
    const renamed = await after({ by: 'object', parts: [1], name: 'lid' });
    expect(renamed.objects).toEqual(['a', 'lid', 'c']);
    expect(renamed.objectTransforms).toBe(model.objectTransforms);
    const isInterior = await after({ by: 'object', parts: [2, 0], name: 'box' });
    expect(isInterior.objects).toEqual(['box', 'b']);
    expect([...isInterior.faceObject]).toEqual([0, 1, 0, 0, 1, 0]);
    expect(isInterior.objectTransforms).toBeUndefined();
    const materials = await after({ by: 'material', parts: [0, 1], name: 'wood' });
    expect(materials.materials).toEqual([{ name: 'wood', colour: [1, 0, 0] }]);
    expect([...materials.faceMaterial]).toEqual([0, 0, -1, 0, 0, 0]);
  });

  it('isolates, hides and shows by part and by face', async () => {
    let document = openDocument({
      ...cubeDocument().model,
      objects: ['a', 'b'],
      faceObject: Uint32Array.of(0, 0, 1, 1, 1, 0),
    });
    const hidden = async (params: object) => {
      document = applyDelta(
        document,
        (await carryOut(document, { operation: 'hide', params }, localContext)).delta,
      );
      return [...document.hidden].join('');
    };
    expect(await hidden({ how: 'isolate', by: 'object', parts: [1] })).toBe('110001');
    expect(await hidden({ how: 'show', faces: [0] })).toBe('010001');
    expect(await hidden({ faces: [2, 3] })).toBe('011101');
    expect(await hidden({ how: 'isolate', faces: [3] })).toBe('111011');
    expect(await hidden({ how: 'show' })).toBe('000000');
  });
});

describe('what an artist hears', () => {
  it('of an unfold that had to go a longer way round', async () => {
    const { positions, triangles } = horn(12, 12, 6);
    const faceStart = Uint32Array.from({ length: triangles.length / 3 + 1 }, (_, f) => 3 * f);
    const document = openDocument(modelFromMesh('Horn', { positions, cornerVertex: triangles, faceStart }));
    const { delta } = await carryOut(document, { operation: 'unfold', params: {} }, localContext);
    expect(delta.notes).toEqual([
      'Nearly closed: 1 shell, kept from flipping and from shrinking to nothing at the cost of stretch. A lengthwise cut would help.',
    ]);
  });
});
