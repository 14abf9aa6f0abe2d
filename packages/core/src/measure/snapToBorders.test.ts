import { describe, expect, it } from 'vitest';
import { seeded } from '../testing/wander.ts';
import { segmentDistance } from './segmentDistance.ts';
import { segmentIndex, snapToBorders } from './snapToBorders.ts';

/** The four sides of a rectangle. */
const rectangle = (u0: number, v0: number, u1: number, v1: number) =>
  Float64Array.from([u0, v0, u1, v0, u1, v0, u1, v1, u1, v1, u0, v1, u0, v1, u0, v0]);
const GAP = 0.01;
const moved = (box: Float64Array, [u, v]: readonly [number, number]) =>
  box.map((x, i) => x + (i % 2 === 0 ? u : v));
const apart = (a: Float64Array, b: Float64Array) => {
  let least = Infinity;
  for (let i = 0; i < a.length; i += 4)
    for (let j = 0; j < b.length; j += 4) least = Math.min(least, segmentDistance(a, i, b, j));
  return least;
};

describe('a border that is moved beside others', () => {
  const still = segmentIndex(rectangle(0, 0, 1, 1));

  it('brings a point exactly onto a point', () => {
    const { point } = snapToBorders(rectangle(2, 2, 3, 3), [-0.997, -1.002], still, 0.02, GAP);
    expect(point?.at).toEqual([1, 1, 1, 1]);
    expect(2 - 0.997 + (point?.by[0] ?? 0)).toBeCloseTo(1, 14);
    expect(2 - 1.002 + (point?.by[1] ?? 0)).toBeCloseTo(1, 14);
  });

  it('brings a point onto a middle, and a middle onto a point', () => {
    const onto = snapToBorders(rectangle(2, 2, 3, 3), [-0.995, -1.503], still, 0.02, GAP).middle;
    expect(onto?.by.map((x) => Number(x.toFixed(12)))).toEqual([-0.005, 0.003]);
    expect(onto?.at).toEqual([1, 0, 1, 1]);
    const from = snapToBorders(rectangle(2, 2, 3, 2.6), [-0.995, -2.304], still, 0.02, GAP).middle;
    expect(from?.by.map((x) => Number(x.toFixed(12)))).toEqual([-0.005, 0.004]);
    expect(from?.at).toEqual([1, 0, 1, 0]);
  });

  it('brings a point onto an edge, but not past its end', () => {
    const { edge, point } = snapToBorders(rectangle(2, 2, 3, 3), [-0.99, -1.7], still, 0.02, GAP);
    expect(point).toBeUndefined();
    expect(edge?.by).toEqual([expect.closeTo(-0.01, 12), 0]);
    expect(snapToBorders(rectangle(2, 2, 3, 3), [-0.99, -0.99], still, 0.005, GAP).edge).toBeUndefined();
  });

  it('lays outlines as far apart as the gap, whatever their shapes, checked by the distance of all their segments', () => {
    const random = seeded(8);
    let held = 0;
    for (let round = 0; round < 200; round++) {
      const turn = Math.PI * random();
      const [c, s] = [0.4 * Math.cos(turn), 0.4 * Math.sin(turn)];
      const own = rectangle(-1, -1, 1, 1).map((_, i, box) =>
        i % 2 === 0 ? c * box[i] - s * box[i + 1] : s * box[i - 1] + c * box[i],
      );
      const by = [0.5 + (random() - 0.5) * 2.4, 0.5 + (random() - 0.5) * 2.4] as const;
      const { outline } = snapToBorders(own, by, still, 0.05, GAP);
      if (!outline) continue;
      held++;
      const there = moved(own, [by[0] + outline.by[0], by[1] + outline.by[1]]);
      expect(apart(there, still.segments)).toBeGreaterThan(GAP * (1 - 1e-9));
      expect(apart(there, still.segments)).toBeLessThan(GAP * (1 + 1e-9));
    }
    expect(held).toBeGreaterThan(3);
  });

  it('takes no hold of outlines that cross, nor of anything far', () => {
    expect(snapToBorders(rectangle(0, 0, 1, 1), [0.5, 0.5], still, 0.02, GAP).outline).toBeUndefined();
    expect(snapToBorders(rectangle(0, 0, 1, 1), [3, 3], still, 0.02, GAP)).toEqual({});
    expect(snapToBorders(rectangle(0, 0, 1, 1), [3, 3], segmentIndex(new Float64Array(0)), 1, GAP)).toEqual(
      {},
    );
  });
});
