import { describe, expect, it } from 'vitest';
import { seeded } from '../testing/wander.ts';
import { bleed } from './bleed.ts';
import { labelColour } from './maps.ts';
import { middleOfTexel, NO_TRIANGLE, trianglesAtTexels, weightsAt } from './texels.ts';

const [WIDTH, HEIGHT] = [23, 17];
const rows = { frame: [0.1, -0.2, 1.3, 0.7] as const, width: WIDTH, height: HEIGHT, from: 0, to: HEIGHT };

/** Triangles of a fan round a point, which share edges. */
function fan(random: () => number): Float64Array {
  const rim = Array.from({ length: 7 }, (_, i) => {
    const r = 0.2 + 0.25 * random();
    return [0.7 + r * Math.cos((2 * Math.PI * i) / 7), 0.25 + r * Math.sin((2 * Math.PI * i) / 7)];
  });
  return Float64Array.from(rim.flatMap((at, i) => [0.7, 0.25, ...at, ...rim[(i + 1) % 7]]));
}

describe('triangles at texels', () => {
  it('are those whose weights at the middle of the texel are none below 0, with no gap between neighbours', () => {
    const random = seeded(4);
    for (let k = 0; k < 20; k++) {
      const uv = fan(random);
      const found = trianglesAtTexels(uv, rows);
      for (let y = 0; y < HEIGHT; y++)
        for (let x = 0; x < WIDTH; x++) {
          const at = middleOfTexel(rows, x, y);
          const least = Array.from({ length: 7 }, (_, t) => Math.min(...weightsAt(uv, t, ...at)));
          const t = found[y * WIDTH + x];
          if (t === NO_TRIANGLE) expect(Math.max(...least)).toBeLessThan(1e-9);
          else expect(least[t]).toBeGreaterThan(-1e-9);
        }
    }
  });

  it('are the same in stretches of rows as all at once, and none for triangles that lie nowhere or have no area', () => {
    const uv = Float64Array.from([
      ...fan(seeded(9)),
      ...new Array(6).fill(Number.NaN),
      0.2,
      0.2,
      0.4,
      0.4,
      0.6,
      0.6,
    ]);
    const whole = trianglesAtTexels(uv, rows);
    const parts = [0, 5, 11].map((from, i, all) =>
      trianglesAtTexels(uv, { ...rows, from, to: all[i + 1] ?? HEIGHT }),
    );
    expect(parts.flatMap((part) => [...part])).toEqual([...whole]);
    expect(whole.includes(7)).toBe(false);
    expect(whole.includes(8)).toBe(false);
  });
});

describe('bleeding', () => {
  it('takes what lies nearest, to within a texel, as far as it is asked and no farther', () => {
    const random = seeded(11);
    const [width, height, reach] = [40, 30, 6];
    for (let k = 0; k < 10; k++) {
      const covered = Uint8Array.from({ length: width * height }, () => (random() < 0.01 ? 1 : 0));
      const values = Uint16Array.from(covered, (yes, i) => (yes ? i : 0));
      const filled = bleed(values, 1, covered, width, reach);
      const sources = [...covered.keys()].filter((i) => covered[i]);
      const far = (i: number, j: number) =>
        Math.hypot((i % width) - (j % width), Math.floor(i / width) - Math.floor(j / width));
      for (let i = 0; i < covered.length; i++) {
        const nearest = Math.min(...sources.map((j) => far(i, j)));
        if (nearest > reach) expect(filled[i]).toBe(0);
        else if (nearest < reach - 1) expect(filled[i]).toBe(1);
        if (filled[i]) expect(far(i, values[i])).toBeLessThan(nearest + 1);
      }
    }
  });
});

describe('colours of numbers', () => {
  it('are each of one number, as 8 bits hold them', () => {
    const colours = Array.from({ length: 4096 }, (_, i) =>
      labelColour(i)
        .map((x) => Math.round(255 * x))
        .join(' '),
    );
    expect(new Set(colours).size).toBe(4096);
  });
});
