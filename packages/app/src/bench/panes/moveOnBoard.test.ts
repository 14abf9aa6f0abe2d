import { describe, expect, it } from 'vitest';
import { moveOnBoard } from './edgeLines.ts';

/** Three lines, each from a corner of a triangle to the next. */
const ENDS = Uint32Array.of(0, 1, 4, 5, 7, 8);
const uv = Float32Array.from({ length: 18 }, (_, i) => i + 1);

describe('lines that move on the Board', () => {
  it('are written where their triangles have changed, and nowhere else, and told which they were', () => {
    const lines = new Float32Array(18);
    expect(moveOnBoard({ uv, changed: { from: 1, to: 2 } }, ENDS)(lines)).toEqual([1, 1]);
    // Of the second triangle, corners 3 to 5: the second line.
    expect([...lines]).toEqual([0, 0, 0, 0, 0, 0, 9, 10, 0, 11, 12, 0, 0, 0, 0, 0, 0, 0]);
    expect(moveOnBoard({ uv, changed: { from: 1, to: 3 } }, ENDS)(lines)).toEqual([1, 2]);
    expect([...lines.subarray(12)]).toEqual([15, 16, 0, 17, 18, 0]);
  });

  it('are all written where nothing is known, and none where nothing of them has changed', () => {
    const lines = new Float32Array(18);
    expect(moveOnBoard({ uv, changed: { from: 5, to: 9 } }, ENDS)(lines)).toEqual([0, 0]);
    expect(lines.some(Boolean)).toBe(false);
    expect(moveOnBoard({ uv, changed: { from: 0, to: Infinity } }, ENDS)(lines)).toEqual([0, 3]);
    expect([...lines.subarray(0, 6)]).toEqual([1, 2, 0, 3, 4, 0]);
  });
});
