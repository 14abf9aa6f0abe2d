import { FIRST_TILE } from '@blunt-hem/core/surface/tiles';
import type { UvBox } from '@blunt-hem/core/surface/uvBox';
import { describe, expect, it } from 'vitest';
import { SNAPS, snapMove, snapsChosen, snapTurn } from './index.ts';

const GAP = 8 / 2048;
const all = snapsChosen({ snapKinds: undefined });
const moved = (box: UvBox, others: readonly UvBox[] = [], tile = FIRST_TILE) => ({
  box,
  others,
  tile,
  near: {},
});
const snapped = (box: UvBox, others: readonly UvBox[] = [], reach = 0.01) => {
  const holds = snapMove(moved(box, others), all, reach);
  return {
    by: [0, 1].map((k) => holds.reduce((sum, { by }) => sum + by[k], 0)),
    what: holds.map(({ what }) => what),
    guides: holds.map(({ guide }) => guide),
  };
};

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
    const beside = snapped([0.605, 0.403, 0.7, 0.7], [[0.4, 0.4, 0.6, 0.55]]);
    expect(beside.by[0]).toBeCloseTo(0.6 + GAP - 0.605, 12);
    expect(beside.by[1]).toBeCloseTo(0.4 - 0.403, 12);
    expect(beside.what).toEqual(['padding of a shell', 'side of a shell']);
    // The line runs from the one to the other.
    expect(beside.guides[1]).toEqual([0.4, 0.4, 0.7, 0.4]);
  });

  it('takes hold of the lines of the grid, in the tile in which it lies', () => {
    const holds = snapMove(moved([1.262, 0.63, 1.3, 0.66], [], { ...FIRST_TILE, number: 1002 }), all, 0.02);
    expect(holds.map(({ by }) => Number(Math.max(...by.map(Math.abs)).toFixed(12)))).toEqual([0.012, 0.005]);
  });

  it('takes hold of borders before lines, and of nothing that is not chosen', () => {
    const near = { point: { by: [0.004, 0.001], far: 0.0041, at: [0.3, 0.3, 0.3, 0.3] } } as const;
    const there = { ...moved([0.007, 0.42, 0.107, 0.585]), near };
    expect(snapMove(there, all, 0.01).map(({ what }) => what)).toEqual(['point']);
    expect(snapMove(there, new Set(['tile']), 0.01).map(({ what }) => what)).toEqual([
      'padding of the tile',
      'middle of the tile',
    ]);
    expect(snapMove(there, new Set(), 0.01)).toEqual([]);
  });

  it('lies on whole texels, if those are chosen', () => {
    const holds = snapMove(moved([0.3003, 0.30021, 0.4, 0.4]), new Set(['texels']), 0.01);
    for (const [axis, { by }] of holds.entries())
      expect((([0.3003, 0.30021][axis] + by[axis]) * 2048) % 1).toBeCloseTo(0, 9);
    expect(holds).toHaveLength(2);
  });

  it('every one of them takes hold of something that is near, and is called something of its own', () => {
    const near = Object.fromEntries(
      ['point', 'middle', 'edge', 'outline'].map((way) => [
        way,
        { by: [0.001, 0], far: 0.001, at: [0, 0, 0, 0] },
      ]),
    );
    const there = { ...moved([0.001, 0.1261, 0.101, 0.3], [[0.1, 0.12, 0.2, 0.3]]), near };
    for (const { name, lines, place, angles } of SNAPS) {
      const turned = snapTurn({ angle: 0.02, own: [0], still: [] }, new Set([name]));
      const holds = snapMove(there as Parameters<typeof snapMove>[0], new Set([name]), 0.01);
      expect(holds.length > 0, name).toBe(lines !== undefined || place !== undefined);
      expect(turned !== 0.02, name).toBe(angles !== undefined);
    }
    expect(new Set(SNAPS.map(({ label }) => label)).size).toBe(SNAPS.length);
  });
});

describe('a turn', () => {
  const degrees = (x: number) => (x * Math.PI) / 180;
  const turn = (angle: number, own: number[] = [], still: number[] = []) =>
    snapTurn({ angle: degrees(angle), own: own.map(degrees), still: still.map(degrees) }, all);

  it('takes hold of every fifteen degrees', () => {
    expect(turn(46.9)).toBeCloseTo(degrees(45), 12);
    expect(turn(-88)).toBeCloseTo(degrees(-90), 12);
    expect(turn(52)).toBe(degrees(52));
  });

  it('lays chosen edges along chosen edges of others, either way round, and level', () => {
    expect(turn(36, [10], [47])).toBeCloseTo(degrees(37), 12);
    expect(turn(-144, [10], [47])).toBeCloseTo(degrees(-143), 12);
    expect(turn(-9, [10])).toBeCloseTo(degrees(-10), 12);
  });
});
