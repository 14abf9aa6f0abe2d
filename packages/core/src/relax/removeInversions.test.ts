import { describe, expect, it } from 'vitest';
import { unattended } from '../progress.ts';
import { restTriangles } from '../surface/restTriangles.ts';
import { seeded } from '../testing/wander.ts';
import { invertedTriangles, removeInversions } from './removeInversions.ts';

/**
 * A square sheet in its own shape, its border fixed and its inside scattered.
 *
 * @param amount  from 0, not at all, to 1, anywhere in the square
 */
function scattered(side: number, amount: number) {
  const random = seeded(3);
  const positions: number[] = [];
  const uv: number[] = [];
  const triangles: number[] = [];
  const fixed: number[] = [];
  const last = side - 1;
  for (let i = 0; i < side; i++)
    for (let j = 0; j < side; j++) {
      positions.push(j, i, 0);
      const onBorder = i % last === 0 || j % last === 0;
      const part = onBorder ? 0 : amount;
      fixed.push(onBorder ? 1 : 0);
      uv.push(((1 - part) * j) / last + part * random(), ((1 - part) * i) / last + part * random());
      const v = i * side + j;
      if (i > 0 && j > 0) triangles.push(v - side - 1, v - side, v, v - side - 1, v, v - 1);
    }
  const corners = Uint32Array.from(triangles);
  const rest = restTriangles(Float64Array.from(positions), corners);
  return {
    whole: { triangles: corners, rest },
    uv: Float64Array.from(uv),
    fixed: Uint8Array.from(fixed),
  };
}

describe('triangles that face down', () => {
  it('are turned up inside a border that stays, bit by bit', () => {
    const { whole, uv, fixed } = scattered(25, 0.2);
    expect(invertedTriangles(whole, uv, 0).length).toBeGreaterThan(200);
    const found = removeInversions(whole, uv, fixed, unattended) as Float64Array;
    expect(invertedTriangles(whole, found, 0)).toEqual([]);
    fixed.forEach((f, v) => {
      if (f) expect([found[2 * v], found[2 * v + 1]]).toEqual([uv[2 * v], uv[2 * v + 1]]);
    });
  });

  it('are given up where hardly any of many turn, long before the last step', () => {
    const { whole, uv, fixed } = scattered(45, 1);
    let steps = 0;
    const found = removeInversions(whole, uv, fixed, { ...unattended, report: () => steps++ });
    expect(found).toBeUndefined();
    expect(steps).toBeLessThan(50);
  });
});
