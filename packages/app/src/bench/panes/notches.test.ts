import { describe, expect, it } from 'vitest';
import { NO_UV, NOWHERE } from '../../worker/protocol.ts';
import { notchesOf } from './notches.ts';

/** Four triangles in a row of two shells; edges 0 and 1 are a seam between them, edge 2 one within the second. */
const model = {
  triangleFace: Uint32Array.of(0, 1, 2, 3),
  edgeEnds: Uint32Array.of(0, 1, 4, 3, 3, 4, 7, 6, 6, 7, 10, 9),
};
const flat = {
  seams: Uint32Array.of(0, 1, 2),
  seamBreaks: Uint8Array.of(1, 0, 0),
  faceShell: Uint32Array.of(0, 0, 1, 1),
};
const uv = Float32Array.from({ length: 24 }, (_, i) => (i % 2 === 0 ? i / 2 : 1));

describe('notches', () => {
  it('stand in pairs of one number, in the middle of every run between two shells', () => {
    const found = notchesOf(model, flat, uv);
    expect(found.map(({ number }) => number)).toEqual([1, 1, 2, 2, 3, 3]);
    expect(found[0]).toMatchObject({ edge: 0, u: 0.5, v: 1, run: 1 });
    expect(found[1].along).toEqual([-1, 0]);
    // Two runs that one chain joins are told apart where the shells change.
    const one = notchesOf(model, { ...flat, faceShell: Uint32Array.of(0, 0, 0, 0) }, uv);
    expect(one.map(({ number }) => number)).toEqual([1, 1]);
    expect(one[0]).toMatchObject({ edge: 1, run: 3 });
  });

  it('are left out where a side has no place in the flat', () => {
    const some = uv.slice();
    some[2 * 4] = NO_UV;
    expect(notchesOf(model, flat, some).map(({ edge }) => edge)).toEqual([2, 2]);
    const ends = model.edgeEnds.slice();
    ends[10] = NOWHERE;
    expect(notchesOf({ ...model, edgeEnds: ends }, flat, uv).length).toBe(4);
  });
});
