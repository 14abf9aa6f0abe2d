import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { applyDelta } from '../../document/delta.ts';
import { type HemDocument, openDocument, shellsOf, topologyOf } from '../../document/document.ts';
import { densityOf, shellBoxes } from '../../document/layout.ts';
import { overlappingFaces } from '../../document/overlappingFaces.ts';
import { densities } from '../../inspect/densities.ts';
import { findEdge } from '../../mesh/connectivity.ts';
import { modelFromMesh } from '../../mesh/model.ts';
import { FIRST_TILE, isOutside as leaves } from '../../surface/tiles.ts';
import type { UvBox } from '../../surface/uvBox.ts';
import { after } from '../../testing/acts.ts';
import { sheet, torus } from '../../testing/shapes.ts';
import { carryOut, request } from '../catalogue.ts';
import { localContext } from '../localContext.ts';

/** A sheet in waves, uncut. */
const waves = () =>
  openDocument(
    modelFromMesh(
      'Waves',
      sheet(12, 12, (i, j) => [j, 2 * Math.sin(i / 2) * Math.cos(j / 2), i]),
    ),
  );

/** Edges across the sheet between rows i and i + 1. */
const across = (document: HemDocument, row: number): number[] => {
  const { edgeVertices } = topologyOf(document.model).connectivity;
  return [...document.seams.keys()].filter((e) =>
    [edgeVertices[2 * e], edgeVertices[2 * e + 1]].every((v) => Math.floor(v / 13) === row),
  );
};

const outside = (document: HemDocument): number =>
  shellBoxes(document).filter((box) => box && isOutside(box)).length;

/** Pairs of faces of different shells that lie on each other; what a cut makes a shell do to itself is no matter of layout. */
const pairs = (document: HemDocument): number => {
  const faces = overlappingFaces(document).overlaps;
  const { faceShell } = shellsOf(document);
  let count = 0;
  for (let i = 0; i < faces.length; i += 2) if (faceShell[faces[i]] !== faceShell[faces[i + 1]]) count++;
  return count;
};

const isOutside = (box: UvBox): boolean => leaves([FIRST_TILE], box);
const shellDensities = (document: HemDocument): number[] => [...densities(document).density];

const boxes = (document: HemDocument) => shellBoxes(document) as UvBox[];

describe('a Board on which nothing was placed', () => {
  it('is tidy after every one of many acts', async () => {
    const edges = fc.array(fc.nat({ max: 311 }), { minLength: 1, maxLength: 40 });
    const step = fc.oneof(
      edges.map((list) => request('cut', { edges: list })),
      edges.map((list) => request('sew', { edges: list })),
      fc.nat({ max: 11 }).map((row) => ({ operation: 'row', params: row })),
      fc.constant(request('relax', { steps: 5 })),
      fc.constant(request('unfold', {})),
      fc.constant(request('unfold', { method: 'angle-based' })),
    );
    await fc.assert(
      fc.asyncProperty(fc.array(step, { minLength: 10, maxLength: 10 }), async (steps) => {
        let document = await after(waves(), request('unfold', {}));
        for (const each of steps) {
          const act =
            each.operation === 'row'
              ? request('cut', { edges: across(document, each.params as number) })
              : each;
          document = await after(document, act);
          if (document.stale.includes(1))
            document = await after(document, request('unfold', { shells: 'stale' }));
          expect(outside(document)).toBe(0);
          expect(pairs(document)).toBe(0);
        }
        expect(document.placed).toBe(0);
      }),
      { numRuns: 12 },
    );
  });

  it('keeps shells at the sizes they have to one another', async () => {
    let document = await after(waves(), request('unfold', {}), request('cut', { edges: across(waves(), 6) }));
    document = await after(document, request('unfold', { shells: 'stale' }));
    const sizes = boxes(document).map(([a, , c]) => c - a);
    expect(sizes).toHaveLength(2);
    const before = sizes[0] / sizes[1];
    const relaxed = boxes(await after(document, request('relax', { shells: [0] }))).map(([a, , c]) => c - a);
    expect(relaxed[0] / relaxed[1] / before).toBeCloseTo(1, 0);
  });
});

describe('a Board on which something is held', () => {
  /** The sheet in four strips, laid flat. */
  const strips = async () => {
    const edges = [3, 6, 9].flatMap((row) => across(waves(), row));
    return after(waves(), request('cut', { edges }), request('unfold', {}));
  };
  const pinned = async (places: { vertex: number; face: number }[]) =>
    after(await strips(), request('set-pins', { places, pinned: true }));
  const densitiesApart = (document: HemDocument): number => {
    const each = shellDensities(document);
    return Math.max(...each) / Math.min(...each);
  };
  const BODY = request('relax', {});

  it('goes on laying out what is not held, clear and in the tile, at one density, when a place is pinned', async () => {
    const document = await pinned([{ vertex: 0, face: 0 }]);
    const uv = document.uvSets[0].uv.slice(0, 2);
    for (const act of [BODY, request('unfold', {}), request('unfold', { method: 'angle-based' })]) {
      const { delta } = await carryOut(document, act, localContext);
      const next = applyDelta(document, delta);
      expect(next.placed).toBe(0);
      expect(next.uvSets[0].uv.slice(0, 2)).toEqual(uv);
      expect(outside(next)).toBe(0);
      expect(pairs(next)).toBe(0);
      expect(densitiesApart(next)).toBeLessThan(1.02);
      expect(delta.notes.join()).not.toMatch(/wait|keep their places/);
    }
  });

  it('keeps the density of a shell with a stay', async () => {
    const chain = Array.from({ length: 12 }, (_, i) =>
      findEdge(topologyOf(waves().model).connectivity, 13 + i, 14 + i),
    );
    let document = await after(await strips(), request('set-stays', { edges: chain, straight: true }));
    for (const act of [request('unfold', {}), BODY, BODY]) {
      document = await after(document, act);
      expect(densitiesApart(document)).toBeLessThan(1.02);
      expect(outside(document)).toBe(0);
      expect(pairs(document)).toBe(0);
    }
  });

  it('lays the others smaller where they do not fit beside what is held, and says so', async () => {
    const document = await after(await strips(), request('lock-shells', { shells: [0], locked: true }));
    const large = {
      ...document,
      uvSets: [{ ...document.uvSets[0], uv: document.uvSets[0].uv.map((x) => 0.2 + 0.6 * x) }],
    };
    const { delta } = await carryOut(large, request('keep-places', { keep: false }), localContext);
    expect(delta.notes).toEqual([]);
    const grown = { ...large, placed: 1 };
    const told = await carryOut(grown, request('pack', {}), localContext);
    const packed = applyDelta(grown, told.delta);
    expect(told.delta.notes).toContain('1 locked shell left as it is.');
    expect(boxes(packed)[0]).toEqual(boxes(grown)[0]);
    expect(outside(packed)).toBe(0);
    expect(pairs(packed)).toBe(0);
    // At three times the size there is no room at the scale of what is locked.
    const huge = {
      ...grown,
      uvSets: [{ ...grown.uvSets[0], uv: grown.uvSets[0].uv.map((x) => (x - 0.2) / 0.6) }],
    };
    const wide = await after(
      { ...huge, locked: new Uint8Array(huge.locked.length) },
      request('transform-shells', { shells: [0], matrix: [2, 0, 0, 1, 0, 0] }),
      request('lock-shells', { shells: [0], locked: true }),
    );
    const smaller = await carryOut(wide, request('pack', {}), localContext);
    expect(pairs(applyDelta(wide, smaller.delta))).toBe(0);
    expect(smaller.delta.notes.join()).toMatch(/% of their size|beside the tile/);
  });
});

describe('locked shells', () => {
  const start = async () => {
    const flat = await after(
      waves(),
      request('cut', { edges: [...across(waves(), 3), ...across(waves(), 6)] }),
      request('unfold', {}),
    );
    return after(flat, request('lock-shells', { shells: [0], locked: true }));
  };

  it.each([
    request('unfold', {}),
    request('relax', {}),
    request('pack', {}),
    request('even-density', {}),
    request('keep-places', { keep: false }),
  ])('stay as they are when all are meant, which is said: $operation', async (act) => {
    const document = await start();
    const { delta } = await carryOut(document, act, localContext);
    const next = applyDelta(document, delta);
    expect(boxes(next)[0]).toEqual(boxes(document)[0]);
    if (act.operation !== 'keep-places') expect(delta.notes).toContain('1 locked shell left as it is.');
  });

  it.each([
    request('unfold', { shells: [0] }),
    request('relax', { shells: [0] }),
    request('relax', { faces: [0, 1] }),
    request('cut', { edges: across(waves(), 1) }),
    request('sew', { edges: across(waves(), 3) }),
    request('transform-shells', { shells: [0], matrix: [1, 0, 0, 1, 0.1, 0] }),
    request('brush', { face: 0, brush: 'push', dabs: [0.2, 0.2, 0.1, 0, 0.5, 1] }),
    request('set-pins', { places: [{ vertex: 0, face: 0 }], pinned: true }),
    request('set-stays', { edges: across(waves(), 1), straight: true }),
    request('split-off', { faces: [0] }),
    request('project', { faces: [0, 1], kind: 'plane' }),
  ])('refuse what is meant for them, in a sentence: $operation', async (act) => {
    await expect(carryOut(await start(), act, localContext)).rejects.toThrow(
      /^This shell is locked, and stays as it is: unlock it first\.$/,
    );
  });

  it('may be unlocked, and others cut beside them', async () => {
    const document = await start();
    const both = request('cut', { edges: [...across(document, 1), ...across(document, 8)] });
    const { delta } = await carryOut(document, both, localContext);
    expect(delta.notes.join()).toMatch(/edges of locked shells left as they are/);
    expect(shellsOf(applyDelta(document, delta)).shellCount).toBe(4);
    const free = await after(document, request('lock-shells', { shells: [0], locked: false }));
    expect(free.locked.includes(1)).toBe(false);
    expect(shellsOf(await after(free, both)).shellCount).toBe(5);
  });
});

describe('a Board on which shells were placed', () => {
  const placed = async () => {
    const flat = await after(waves(), request('unfold', {}), request('cut', { edges: across(waves(), 6) }));
    return after(flat, request('unfold', { shells: 'stale' }), request('pack', {}));
  };

  it('knows it from packing, moving, pins and UVs that came with a file', async () => {
    const fresh = await after(waves(), request('unfold', {}));
    expect(fresh.placed).toBe(0);
    expect((await after(fresh, request('pack', {}))).placed).toBe(1);
    const move = request('transform-shells', { shells: [0], matrix: [1, 0, 0, 1, 0.1, 0] });
    expect((await after(fresh, move)).placed).toBe(1);
    const asked = request('unfold', { pins: [{ vertex: 0, uv: [0.1, 0.1] }] });
    const { delta } = await carryOut(fresh, asked, localContext);
    expect(applyDelta(fresh, delta).placed).toBe(1);
    expect(delta.notes).toEqual(['From now on shells keep their places.']);
    expect(openDocument({ ...fresh.model, uvSets: fresh.uvSets }).placed).toBe(1);
  });

  it('keeps middle, turn and density of what is unfolded or relaxed anew, and all else exactly', async () => {
    const document = await placed();
    const [, other] = boxes(document);
    for (const act of [request('unfold', { shells: [0] }), request('relax', { shells: [0] })]) {
      const next = await after(document, act);
      expect(boxes(next)[1]).toEqual(other);
      expect((densityOf(next) as number) / (densityOf(document) as number)).toBeCloseTo(1, 6);
    }
  });

  it('sends beside the tile what would come to lie on another, and says so', async () => {
    const document = await placed();
    const [a, b] = boxes(document);
    const onto = request('transform-shells', {
      shells: [0],
      matrix: [1, 0, 0, 1, b[0] - a[0], b[1] - a[1]],
    });
    // It lies on the other by the artist's own hand: it stays there.
    const lying = await after(document, onto);
    expect(pairs(lying)).toBeGreaterThan(0);
    const again = await carryOut(lying, request('unfold', { shells: [0] }), localContext);
    expect(again.delta.notes).toEqual([]);
    // Cut in two, the halves open at the cut: the smaller gives way to the larger.
    const cut = await after(document, request('cut', { edges: across(document, 3) }));
    const { delta } = await carryOut(cut, request('unfold', { shells: 'stale' }), localContext);
    const next = await after(cut, request('unfold', { shells: 'stale' }));
    const out = boxes(next).filter((box) => isOutside(box));
    expect(delta.notes.length).toBe(out.length > 0 ? 1 : 0);
    expect(pairs(next)).toBe(0);
  });

  it('takes a shell that grew to the free place nearest to where it was, and leaves it there where there is none', async () => {
    const start = await after(waves(), request('unfold', {}), request('relax', {}));
    // Small, against the right side of an empty tile; then squeezed together, so that relaxing lets it grow out of it.
    const [[minU, minV, maxU]] = boxes(start);
    const scale = 0.4 / (maxU - minU);
    const shrink = request('transform-shells', {
      shells: [0],
      matrix: [0.5 * scale, 0, 0, scale, 0.999 - 0.5 * scale * maxU, 0.3 - scale * minV],
    });
    const squeezed = await after(start, shrink);
    const { delta } = await carryOut(squeezed, request('relax', {}), localContext);
    const relaxed = applyDelta(squeezed, delta);
    expect(outside(relaxed)).toBe(0);
    expect(delta.notes).toEqual([]);
    const [box] = boxes(relaxed);
    expect(box[2]).toBeGreaterThan(0.99);
    expect(Math.abs(box[1] - boxes(squeezed)[0][1])).toBeLessThan(0.1);
    // Where the tile has no room for it at all it reaches out of it from where it was, and that is said.
    const large = await after(
      start,
      request('transform-shells', { shells: [0], matrix: [0.95, 0, 0, 0.99, 0.002, 0.002] }),
    );
    const told = await carryOut(large, request('relax', {}), localContext);
    const [grown] = boxes(applyDelta(large, told.delta));
    if (isOutside(grown)) expect(told.delta.notes.join()).toMatch(/1 shell reaches out of the tile/);
    expect(grown[0]).toBeLessThan(0.2);
  });

  it('lets a shell without a place wait beside the tile', async () => {
    const ring = openDocument(modelFromMesh('Ring', torus(12, 8)));
    const { edgeVertices } = topologyOf(ring.model).connectivity;
    // Three cuts round the tube and one along it make three pieces that open flat.
    const edges = [...ring.seams.keys()].filter((e) => {
      const [i, j] = [edgeVertices[2 * e], edgeVertices[2 * e + 1]];
      const [a, b] = [Math.floor(i / 8), Math.floor(j / 8)];
      return (a === b && a % 4 === 0) || (i % 8 === 0 && j % 8 === 0);
    });
    const cut = await after(ring, request('cut', { edges }));
    expect(shellsOf(cut).shellCount).toBe(3);
    const first = await after(cut, request('unfold', { shells: [0] }), request('pack', {}));
    const { delta } = await carryOut(first, request('unfold', {}), localContext);
    expect(delta.notes[0]).toMatch(/^2 shells do not fit where they would lie and wait beside the tile/);
    const next = await after(first, request('unfold', {}));
    expect(boxes(next).filter((box) => isOutside(box))).toHaveLength(2);
    expect(pairs(next)).toBe(0);
    // And all of them come in again when the Board may be laid out afresh.
    const tidy = await after(next, request('keep-places', { keep: false }));
    expect(outside(tidy)).toBe(0);
    expect(pairs(tidy)).toBe(0);
    expect((await after(tidy, request('unfold', {}))).placed).toBe(0);
  });
});
