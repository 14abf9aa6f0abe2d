import { FIRST_TILE } from '@blunt-hem/core/surface/tiles';
import type { UvBox } from '@blunt-hem/core/surface/uvBox';
import { describe, expect, it } from 'vitest';
import { snapAngle, snapBox } from './snapping.ts';

const GAP = 8 / 2048;
const snapped = (box: UvBox, others: readonly UvBox[] = [], reach = 0.01) =>
  snapBox(box, others, [FIRST_TILE], reach);

describe('a box under the hand', () => {
  it('takes hold of the padding and the middle of its tile, and of nothing that is far', () => {
    const { by, what, guides } = snapped([0.007, 0.42, 0.107, 0.585]);
    expect(by[0]).toBeCloseTo(GAP - 0.007, 12);
    expect(by[1]).toBeCloseTo(0.5 - 0.5025, 12);
    expect(what).toEqual(['padding of the tile', 'middle of the tile']);
    expect(guides).toHaveLength(2);
    expect(snapped([0.31, 0.31, 0.44, 0.46])).toEqual({ by: [0, 0], guides: [], what: [] });
  });

  it('keeps the padding beside another shell, and takes hold of its sides, the nearest first', () => {
    const other: UvBox = [0.4, 0.4, 0.6, 0.55];
    const beside = snapped([0.605, 0.403, 0.7, 0.7], [other]);
    expect(beside.by[0]).toBeCloseTo(0.6 + GAP - 0.605, 12);
    expect(beside.by[1]).toBeCloseTo(0.4 - 0.403, 12);
    expect(beside.what).toEqual(['padding of a shell', 'side of a shell']);
    // The line runs from the one to the other.
    expect(beside.guides[1]).toEqual([0.4, 0.4, 0.7, 0.4]);
    // A shell that is far away is left out.
    expect(snapped([0.605, 0.81, 0.69, 0.86], [[0.4, 0.4, 0.6, 0.45]]).what).toEqual([]);
  });

  it('takes hold of the lines of the grid, in the tile in which it lies', () => {
    const { by } = snapBox([1.262, 0.63, 1.3, 0.66], [], [FIRST_TILE, { ...FIRST_TILE, number: 1002 }], 0.02);
    expect(by[0]).toBeCloseTo(1.25 - 1.262, 12);
    expect(by[1]).toBeCloseTo(0.625 - 0.63, 12);
  });
});

it('a turn takes hold of every fifteen degrees', () => {
  const degrees = (x: number) => (x * Math.PI) / 180;
  expect(snapAngle(degrees(46.9))).toBeCloseTo(degrees(45), 12);
  expect(snapAngle(degrees(-88))).toBeCloseTo(degrees(-90), 12);
  expect(snapAngle(degrees(52))).toBe(degrees(52));
});
