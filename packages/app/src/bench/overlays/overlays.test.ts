import { describe, expect, it } from 'vitest';
import { OVERLAYS, overlayNamed } from './index.ts';
import { type Overlay, placeAt } from './overlay.ts';

describe('the ramp of an overlay', () => {
  it('says at its right end what lies there, however far its ends are drawn out', () => {
    const told: Readonly<Record<string, (figure: number) => number>> = {
      // A face that gets half its due is stretched twice.
      area: (factor) => -Math.log(factor),
      angle: (degrees) => degrees,
      both: (factor) => Math.log(factor),
      density: (factor) => Math.log(factor),
    };
    expect(OVERLAYS.filter(({ anchor }) => anchor !== undefined).map(({ name }) => name)).toEqual(
      Object.keys(told),
    );
    for (const [name, value] of Object.entries(told))
      for (const reach of [0.5, 1, 2, 4]) {
        const overlay = overlayNamed(name) as Overlay;
        const [, middle, right] = overlay.legend?.(reach) ?? [];
        const figure = Number(right?.replace(/[^\d.]/g, ''));
        expect(placeAt(overlay, reach, value(figure))).toBeCloseTo(1, 1);
        if (name === 'area') expect([middle, placeAt(overlay, reach, 0)]).toEqual(['even', 0.5]);
      }
  });

  it('stays as it is where nothing can be drawn out', () => {
    const seen = overlayNamed('exposure') as Overlay;
    expect(placeAt(seen, 4, 0.25)).toBe(seen.place(0.25));
  });
});
