import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type HemDocument, openDocument, shellsOf, topologyOf } from '../../document/document.ts';
import { densityOf, shellBoxes } from '../../document/layout.ts';
import { overlappingFaces } from '../../document/overlappingFaces.ts';
import { modelFromMesh } from '../../mesh/model.ts';
import { isOutside, type UvBox } from '../../surface/uvBox.ts';
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
  const { edgeVertices } = topologyOf(document.model).links;
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
    const pinned = request('unfold', { pins: [{ vertex: 0, uv: [0.1, 0.1] }] });
    expect((await after(fresh, pinned)).placed).toBe(1);
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
    expect(again.patch.notes).toEqual([]);
    // Cut in two, the halves open at the cut: the smaller gives way to the larger.
    const cut = await after(document, request('cut', { edges: across(document, 3) }));
    const { patch } = await carryOut(cut, request('unfold', { shells: 'stale' }), localContext);
    const next = await after(cut, request('unfold', { shells: 'stale' }));
    const waiting = boxes(next).filter((box) => isOutside(box));
    expect(waiting.every(([minU]) => minU > 1)).toBe(true);
    expect(patch.notes.length).toBe(waiting.length > 0 ? 1 : 0);
    expect(pairs(next)).toBe(0);
  });

  it('lets a shell without a place wait beside the tile', async () => {
    const ring = openDocument(modelFromMesh('Ring', torus(12, 8)));
    const { edgeVertices } = topologyOf(ring.model).links;
    // Three cuts round the tube and one along it make three pieces that open flat.
    const edges = [...ring.seams.keys()].filter((e) => {
      const [i, j] = [edgeVertices[2 * e], edgeVertices[2 * e + 1]];
      const [a, b] = [Math.floor(i / 8), Math.floor(j / 8)];
      return (a === b && a % 4 === 0) || (i % 8 === 0 && j % 8 === 0);
    });
    const cut = await after(ring, request('cut', { edges }));
    expect(shellsOf(cut).shellCount).toBe(3);
    const first = await after(cut, request('unfold', { shells: [0] }), request('pack', {}));
    const { patch } = await carryOut(first, request('unfold', {}), localContext);
    expect(patch.notes[0]).toMatch(/^2 shells do not fit where they would lie and wait beside the tile/);
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
