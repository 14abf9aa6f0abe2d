import { describe, expect, it } from 'vitest';
import { type FlatBuffers, type ModelBuffers, NO_UV } from '../../worker/protocol.ts';
import { spotOf } from './spot.ts';

describe('one place in both panes', () => {
  // A square of two triangles, 2 wide, half as large in the flat and moved.
  const model = {
    triangleFace: Uint32Array.of(0, 0, 1),
    positions: Float32Array.of(
      0,
      0,
      5,
      2,
      0,
      5,
      2,
      2,
      5,
      0,
      0,
      5,
      2,
      2,
      5,
      0,
      2,
      5,
      9,
      9,
      9,
      9,
      9,
      8,
      9,
      8,
      9,
    ),
  } as ModelBuffers;
  const flat = {
    uv: Float32Array.of(0.1, 0.1, 1.1, 0.1, 1.1, 1.1, 0.1, 0.1, 1.1, 1.1, 0.1, 1.1, ...Array(6).fill(NO_UV)),
  } as FlatBuffers;

  it('is found from either', () => {
    for (const [x, y] of [
      [1.5, 0.5],
      [0.5, 1.5],
      [1, 1],
    ]) {
      const there = spotOf(model, flat, 'model', 0, [x, y, 5]);
      expect(there?.uv[0]).toBeCloseTo(0.1 + x / 2, 6);
      expect(there?.uv[1]).toBeCloseTo(0.1 + y / 2, 6);
      const back = spotOf(model, flat, 'board', 0, [...(there?.uv ?? []), 0]);
      expect(back?.solid[0]).toBeCloseTo(x, 5);
      expect(back?.solid[1]).toBeCloseTo(y, 5);
      expect(back?.solid[2]).toBeCloseTo(5, 5);
    }
  });

  it('is none without UVs, or beside the face', () => {
    expect(spotOf(model, flat, 'model', 1, [9, 9, 9])).toBeUndefined();
    expect(spotOf(model, flat, 'model', 0, [5, 5, 5])).toBeUndefined();
    expect(spotOf(model, flat, 'model', 7, [1, 1, 5])).toBeUndefined();
  });
});
