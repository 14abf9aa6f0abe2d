import { describe, expect, it } from 'vitest';
import { triangleAreas } from '../surface/areas.ts';
import { borders } from '../surface/borders.ts';
import { isLocallyInjective } from './isLocallyInjective.ts';

/** A flat fan of triangles round the origin. */
const fan = (spokes: number) => ({
  triangles: Uint32Array.from(
    Array.from({ length: spokes }, (_, i) => [0, 1 + i, 1 + ((i + 1) % spokes)]).flat(),
  ),
  /** Every spoke at so many turns of the whole fan. */
  wound: (turns: number) =>
    Float64Array.from([
      0,
      0,
      ...Array.from({ length: spokes }, (_, i) => {
        const angle = 0.1 + (2 * Math.PI * turns * i) / spokes;
        return [Math.cos(angle), Math.sin(angle)];
      }).flat(),
    ]),
});

describe('local injectivity', () => {
  const { triangles, wound } = fan(9);
  const onBorder = Uint8Array.from([0, ...new Array(9).fill(1)]);
  const flat = wound(1);
  const solid = Float64Array.from({ length: 30 }, (_, i) =>
    i % 3 < 2 ? flat[2 * Math.floor(i / 3) + (i % 3)] : 0,
  );
  const area = triangleAreas(solid, triangles);

  it('holds for a fan laid out as it is', () => {
    expect(borders(triangles, 10).loops).toHaveLength(1);
    expect(isLocallyInjective(triangles, flat, area, onBorder)).toBe(true);
  });

  it('does not hold where a fan winds twice round its middle, every triangle the right way up', () => {
    const twice = wound(2);
    for (let t = 0; t < 9; t++) {
      const [a, b] = [triangles[3 * t + 1], triangles[3 * t + 2]];
      expect(twice[2 * a] * twice[2 * b + 1] - twice[2 * a + 1] * twice[2 * b]).toBeGreaterThan(0);
    }
    expect(isLocallyInjective(triangles, twice, area, onBorder)).toBe(false);
  });

  it('does not hold for a triangle turned over or pressed to nothing', () => {
    const turned = flat.slice();
    turned.set([-1.3 * flat[2], -1.3 * flat[3]], 0);
    expect(isLocallyInjective(triangles, turned, area, onBorder)).toBe(false);
    const pressed = flat.slice();
    pressed.set([(flat[2] + flat[4]) / 2, (flat[3] + flat[5]) / 2], 0);
    expect(isLocallyInjective(triangles, pressed, area, onBorder)).toBe(false);
  });
});
