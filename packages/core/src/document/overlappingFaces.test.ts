import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { localJobs } from '../jobs/index.ts';
import { meshFromPolygons } from '../mesh/mesh.ts';
import { modelFromMesh } from '../mesh/model.ts';
import { unattended } from '../progress.ts';
import { answerQuestion } from '../questions/index.ts';
import { type HemDocument, openDocument } from './document.ts';
import { knownOverlaps, OVERLAP_LIMIT, overlappingFaces } from './overlappingFaces.ts';

const QUADS = 12;
const { mesh } = modelFromMesh(
  'Quads',
  meshFromPolygons(
    Array.from({ length: 4 * QUADS }, (_, v) => [
      3 * (v >> 2) + (v % 4 === 1 || v % 4 === 2 ? 1 : 0),
      v % 4 > 1 ? 1 : 0,
      0,
    ]),
    Array.from({ length: QUADS }, (_, f) => [4 * f, 4 * f + 1, 4 * f + 2, 4 * f + 3]),
  ),
);

/** Quads as wide as a step of a lattice or more, somewhere on it; undefined where one has no place. */
const place = fc.option(fc.tuple(fc.nat(6), fc.nat(6), fc.integer({ min: 1, max: 3 })), { nil: undefined });

function laid(places: readonly ([number, number, number] | undefined)[]): HemDocument {
  const uv = Float64Array.from(
    places.flatMap((at) => {
      if (!at) return new Array(8).fill(NaN);
      const [u, v, w] = at.map((x) => x / 10);
      return [u, v, u + w, v, u + w, v + w, u, v + w];
    }),
  );
  return openDocument({ ...modelFromMesh('Quads', mesh), uvSets: [{ name: 'UV', uv }] });
}

describe('faces on each other', () => {
  it('are the same looked for anew and only among what has moved', async () => {
    const places = fc.array(place, { minLength: QUADS, maxLength: QUADS });
    const moves = fc.array(fc.tuple(fc.nat(QUADS - 1), place), { maxLength: 4 });
    await fc.assert(
      fc.asyncProperty(places, moves, async (first, then) => {
        const before = laid(first);
        const next = [...first];
        for (const [i, at] of then) next[i] = at;
        const after = laid(next);
        const known = knownOverlaps(before, overlappingFaces(before).overlaps);
        const whole = overlappingFaces(after);
        expect(overlappingFaces(after, { known })).toEqual(whole);
        // Asked one after the other, as after an act.
        for (const document of [before, after]) {
          const { overlaps } = await answerQuestion(
            document,
            'inspection',
            {},
            { ...unattended, jobs: localJobs },
          );
          expect(overlaps).toEqual(overlappingFaces(document).overlaps);
          // The answer may be given away, as to another thread.
          structuredClone(overlaps, { transfer: [overlaps.buffer] });
        }
      }),
    );
  });

  it('are at least so many when looking for them was given up', () => {
    const count = Math.ceil(Math.sqrt(2 * OVERLAP_LIMIT)) + 2;
    const pile = meshFromPolygons(
      Array.from({ length: 3 * count }, (_, v) => [v, v % 3, v % 2]),
      Array.from({ length: count }, (_, f) => [3 * f, 3 * f + 1, 3 * f + 2]),
    );
    // Each a little smaller than the one before, so that none is stacked exactly.
    const uv = Float64Array.from(
      { length: 6 * count },
      (_, i) => [0, 0, 1, 0, 0, 1][i % 6] * (1 - Math.floor(i / 6) / (2 * count)),
    );
    const document = openDocument({ ...modelFromMesh('Pile', pile), uvSets: [{ name: 'UV', uv }] });
    expect(overlappingFaces(document)).toMatchObject({ atLeast: true });
    expect(overlappingFaces(document).overlaps.length / 2).toBe(OVERLAP_LIMIT);
    expect(overlappingFaces(laid([[0, 0, 1], ...new Array(QUADS - 1).fill([0, 0, 2])]))).toMatchObject({
      atLeast: false,
    });
  });

  it('are told of what was stacked and has not moved, once the rest of its shell has', () => {
    const strips = meshFromPolygons(
      Array.from({ length: 12 }, (_, v) => [v % 3, Math.floor(v / 3), 0]),
      [0, 6].flatMap((a) => [0, 1].map((k) => [a + k, a + k + 1, a + k + 4, a + k + 3])),
    );
    const strip = (right: number) => [
      0.1,
      0.1,
      0.2,
      0.1,
      0.2,
      0.2,
      0.1,
      0.2,
      0.2,
      0.1,
      right,
      0.1,
      right,
      0.2,
      0.2,
      0.2,
    ];
    const model = modelFromMesh('Strips', strips);
    const laidOut = (right: number) =>
      openDocument({
        ...model,
        uvSets: [{ name: 'UV', uv: Float64Array.from([...strip(right), ...strip(0.3)]) }],
      });
    const before = laidOut(0.3);
    expect(overlappingFaces(before).overlaps).toHaveLength(0);
    const after = laidOut(0.35);
    const known = knownOverlaps(before, overlappingFaces(before).overlaps);
    const whole = overlappingFaces(after);
    expect([...whole.overlaps]).toEqual([0, 2, 1, 3]);
    expect(overlappingFaces(after, { known })).toEqual(whole);
  });

  it('are told beside a pile of stacked shells, however large that is', () => {
    const count = 2 * Math.ceil(Math.sqrt(2 * OVERLAP_LIMIT));
    const pile = meshFromPolygons(
      Array.from({ length: 3 * count }, (_, v) => [v, v % 3, v % 2]),
      Array.from({ length: count }, (_, f) => [3 * f, 3 * f + 1, 3 * f + 2]),
    );
    const uv = Float64Array.from({ length: 6 * count }, (_, i) => [0, 0, 1, 0, 0, 1][i % 6]);
    // The last lies on all of the others, and is none of them.
    for (let i = 6 * (count - 1); i < uv.length; i++) uv[i] *= 0.5;
    const document = openDocument({ ...modelFromMesh('Pile', pile), uvSets: [{ name: 'UV', uv }] });
    const { overlaps, atLeast } = overlappingFaces(document);
    expect([overlaps.length / 2, atLeast]).toEqual([count - 1, false]);
  });
});
