import { describe, expect, it } from 'vitest';
import { unattended } from '../progress.ts';
import { triangleAreas } from '../surface/areas.ts';
import { sphericalCap } from '../testing/shapes.ts';
import { unfoldShell } from '../unfold/unfold.ts';
import { compareStretch } from './compareStretch.ts';
import { singularValues } from './singularValues.ts';
import { measureStretch } from './stretch.ts';
import { worstStretch } from './worstStretch.ts';

describe('two maps compared', () => {
  const shell = sphericalCap(8, 14, 1.9);
  const area = Float32Array.from(triangleAreas(shell.positions, shell.triangles));
  const all = new Uint8Array(area.length).fill(1);
  const [one, other] = (['conformal', 'angle-based'] as const).map((method) =>
    measureStretch(shell, unfoldShell(shell, method, unattended).uv),
  );

  it('have the figures that measuring each by itself gives', () => {
    const { figures } = compareStretch(area, all, [one, other]);
    [one, other].forEach(({ l2, linf, angleMean, areaMean }, i) => {
      expect(figures[i].l2 / l2).toBeCloseTo(1, 5);
      expect(figures[i].linf / linf).toBeCloseTo(1, 5);
      expect(figures[i].angleMean).toBeCloseTo(angleMean, 3);
      expect(figures[i].areaMean).toBeCloseTo(areaMean, 5);
    });
  });

  it('are better where lengths are off less, by the singular values themselves', () => {
    const { uv } = unfoldShell(shell, 'conformal', unattended);
    const { area: surface, uvArea, logArea, angle } = measureStretch(shell, uv);
    const scale = Math.sqrt(uvArea / surface);
    const sv = singularValues(shell.positions, shell.triangles, uv);
    for (let t = 0; t < area.length; t++) {
      const [most, least] = [sv[3 * t] * scale, sv[3 * t + 1] * scale];
      expect(worstStretch(logArea[t], angle[t])).toBeCloseTo(
        Math.max(Math.abs(Math.log(most)), Math.abs(Math.log(least))),
        4,
      );
    }
    const { difference, shares } = compareStretch(area, all, [one, other]);
    const back = compareStretch(area, all, [other, one]);
    difference.forEach((d, t) => {
      expect(d).toBeCloseTo(-back.difference[t], 6);
    });
    expect(back.shares).toEqual([shares[1], shares[0], shares[2]]);
    expect(shares[0] + shares[1] + shares[2]).toBeCloseTo(1, 9);
  });

  it('count only where both lie flat; a map is as good as itself', () => {
    const half = all.map((_, t) => t % 2);
    const { difference, shares } = compareStretch(area, half, [one, one]);
    expect([...difference].filter(Number.isNaN)).toHaveLength(Math.ceil(area.length / 2));
    expect(shares).toEqual([0, 0, 1]);
    expect(compareStretch(area, new Uint8Array(area.length), [one, other]).shares).toEqual([0, 0, 0]);
  });
});
